import type { EntryKind } from '@torvek/core/record';

/** What entries of each kind are called where several are meant; a kind without a name does not compile. */
export const entryKindNames: Record<EntryKind, string> = {
  result: 'results',
  gate: 'gates',
  position: 'states',
  intake: 'intake of modules',
  'cell-voltages': 'cell voltages',
  balance: 'balancing',
  joints: 'joints and bonds',
  acceptance: 'acceptances',
  deviation: 'deviations',
  snag: 'snags',
  'snag-gone': 'snags gone',
  work: 'work',
  note: 'notes',
  correction: 'corrections',
};
