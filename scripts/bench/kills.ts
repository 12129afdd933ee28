import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runKillRounds } from '../../server/test/kill-rounds';

/** Rounds of SIGKILL during writes; 20 by default, or the number given. */
const folder = mkdtempSync(join(tmpdir(), 'torvek-kills-'));
const report = await runKillRounds(folder, Number(process.argv[2] ?? 20));
rmSync(folder, { recursive: true, force: true });
console.log(report);
process.exitCode = report.missing.length === 0 && report.doubled === 0 && report.chainFits ? 0 : 1;
