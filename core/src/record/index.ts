export * from './bodies';
export { dropReading, walked, type DropReading, type Told } from './walks';
export { ofKind, type EntryOf } from './of-kind';
export { dayIn, isOverdue } from './calibration';
export { checkEntry } from './check';
export * from './entry';
export { mayDo, mayWitness, roleMeaning, roles, shortestPassword, type Person, type Role } from './people';
export { standing, targetOf, topicOf, verdictOf } from './standing';
