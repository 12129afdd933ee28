import type { printSheet as print } from '../sheets/print';
import type { checkArchive } from '../take-away/check';
import type { packBackup, packJob } from '../take-away/packing';
import type { stageBackup } from '../take-away/restore';
import type { tryBackup } from '../take-away/try-backup';
import type { auditJob, auditShop, expectedPages } from '../verify/audit';
import type { damageOf } from '../journal/scrub';

type Input<Task extends (input: never) => unknown> = Parameters<Task>[0];

/**
 * What is done in threads of their own: each takes and gives what can be sent between threads. A thread loads what its task needs, and no
 * more: half a second of reading code is saved wherever no design is computed.
 */
export const tasks = {
  damageOf: async (input: Input<typeof damageOf>) => (await import('../journal/scrub')).damageOf(input),
  auditJob: async (input: Input<typeof auditJob>) => (await import('../verify/audit')).auditJob(input),
  auditShop: async (input: Input<typeof auditShop>) => (await import('../verify/audit')).auditShop(input),
  expectedPages: async (input: Input<typeof expectedPages>) =>
    (await import('../verify/audit')).expectedPages(input),
  packJob: async (input: Input<typeof packJob>) => (await import('../take-away/packing')).packJob(input),
  packBackup: async (input: Input<typeof packBackup>) =>
    (await import('../take-away/packing')).packBackup(input),
  stageBackup: async (input: Input<typeof stageBackup>) =>
    (await import('../take-away/restore')).stageBackup(input),
  tryBackup: async (input: Input<typeof tryBackup>) =>
    (await import('../take-away/try-backup')).tryBackup(input),
  checkArchive: async (input: Input<typeof checkArchive>) =>
    (await import('../take-away/check')).checkArchive(input),
  printSheet: async (input: Input<typeof print>) => (await import('../sheets/print')).printSheet(input),
  /** A stateless calculation that takes long. */
  calculate: async ({ name, body }: { name: string; body: unknown }) =>
    (await import('@torvek/core/calculators')).calculators.get(name)!.answer(body),
};

export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
