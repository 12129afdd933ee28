export * from './bodies';
export * from './entry';
export { mayDo, mayWitness, roleMeaning, roles, type Person, type Role } from './people';
export { standing, targetOf, topicOf } from './standing';
export { verifyChain, type Known, type Problem, type StoredEntry, type Verification } from './verify';
