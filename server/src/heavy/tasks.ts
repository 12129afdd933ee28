import { calculators } from '@torvek/core/calculators';
import { auditJob, auditShop, expectedPages } from '../verify/audit';
import { damageOf } from '../journal/scrub';
import type { printSheet as print } from '../sheets/print';
import { checkArchive } from '../take-away/check';
import { stageBackup } from '../take-away/restore';
import { tryBackup } from '../take-away/try-backup';
import { packBackup, packJob } from '../take-away/packing';

/** A stateless calculation that takes long. */
const calculate = ({ name, body }: { name: string; body: unknown }) => calculators.get(name)!.answer(body);

/** Sets a sheet as pages; what sets type is loaded when the first is asked for. */
const printSheet = async (input: Parameters<typeof print>[0]) =>
  (await import('../sheets/print')).printSheet(input);

/** What is done in threads of their own: each takes and gives what can be sent between threads. */
export const tasks = {
  damageOf,
  auditJob,
  auditShop,
  expectedPages,
  packJob,
  packBackup,
  stageBackup,
  tryBackup,
  checkArchive,
  calculate,
  printSheet,
};

export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
