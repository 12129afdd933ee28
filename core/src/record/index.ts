export * from './entry';
export { verifyChain, type Known, type Problem, type StoredEntry, type Verification } from './verify';
