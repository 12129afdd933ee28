import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runKillRounds } from '../../server/test/kill-rounds';

/** Rounds of SIGKILL during writes against the built server; 50 by default, or the number given. */
const rounds = Number(process.argv[2] ?? 50);
const folder = mkdtempSync(join(tmpdir(), 'torvek-kills-'));
const report = await runKillRounds(folder, rounds, true);
rmSync(folder, { recursive: true, force: true });
const { acknowledged, found, missing, doubled, chainFits, slowestStartMs } = report;
const say = (name: string, holds: boolean, text: string) =>
  console.log(`  ${name.padEnd(46)} ${text}: ${holds ? 'holds' : 'DOES NOT HOLD'}`);
say(
  `${rounds} rounds: acknowledged, and there`,
  missing.length === 0,
  `${acknowledged}, ${found} (${missing.length} missing)`,
);
say('doubled', doubled === 0, String(doubled));
say('chain verifies', chainFits, chainFits ? 'yes' : 'no');
say('slowest start on data that was there', slowestStartMs < 5000, `${slowestStartMs} ms, limit 5000 ms`);
process.exitCode = missing.length === 0 && doubled === 0 && chainFits && slowestStartMs < 5000 ? 0 : 1;
