export * from './entry';
export { verifyChain, type Head, type Problem, type StoredEntry, type Verification } from './verify';
