import { calculators } from '@torvek/core/calculators';
import { auditJob, auditShop, expectedPages } from '../verify/audit';
import { damageOf } from '../journal/scrub';
import { checkArchive } from '../take-away/check';
import { stageBackup } from '../take-away/restore';
import { tryBackup } from '../take-away/try-backup';
import { packBackup, packJob } from '../take-away/packing';

/** A stateless calculation that takes long. */
const calculate = ({ name, body }: { name: string; body: unknown }) => calculators.get(name)!.answer(body);

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
};

export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
