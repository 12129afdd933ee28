export * from './bodies';
export { dayIn, isOverdue } from './calibration';
export * from './entry';
export { mayDo, mayWitness, roleMeaning, roles, shortestPassword, type Person, type Role } from './people';
export { standing, targetOf, topicOf, verdictOf } from './standing';
export {
  ChainWalk,
  JournalCheck,
  verification,
  verifyChain,
  type Known,
  type Problem,
  type StoredEntry,
  type Verification,
} from './verify';
