import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openBench } from '../../server/test/bench-room';
import { fuzz, seeded } from '../../server/test/fuzz';
import { runKillRounds } from '../../server/test/kill-rounds';
import { alterations } from './alterations';

/**
 * `npm run endure`: what the short tests try a few times, many times, with figures. A word runs one part alone (kills, cuts,
 * alterations, fuzz), a number after it sets how often, a second one the seed.
 */
const [only, times, seedText] = process.argv.slice(2);
const seed = Number(seedText ?? 20_261_128);
let failed = false;

function report(name: string, holds: boolean, figures: object): void {
  failed ||= !holds;
  console.log(`${holds ? 'holds         ' : 'DOES NOT HOLD '} ${name}: ${JSON.stringify(figures)}`);
}

async function part(name: string, usual: number, run: (count: number) => Promise<void>): Promise<void> {
  if (only !== undefined && only !== name) return;
  const began = Date.now();
  await run(Number(only === name && times !== undefined ? times : usual));
  console.log(`               ${name} took ${((Date.now() - began) / 1000).toFixed(0)} s`);
}

await part('kills', 200, async (rounds) => {
  const folder = mkdtempSync(join(tmpdir(), 'torvek-kills-'));
  const { missing, doubled, chainFits, ...figures } = await runKillRounds(folder, rounds, true);
  const holds = missing.length === 0 && doubled === 0 && chainFits && figures.slowestStartMs < 5000;
  report('kills while changes and entries are written', holds, {
    ...figures,
    missing: missing.length,
    doubled,
    chainFits,
  });
  rmSync(folder, { recursive: true });
});

await part('cuts', 20, async (rounds) => {
  const random = seeded(seed);
  const folder = mkdtempSync(join(tmpdir(), 'torvek-cuts-'));
  let early: string | null = null;
  // Of the database any file may be of a while ago, cut short or full of noughts; the journals were fsynced.
  const cut = () => {
    const database = join(folder, 'database');
    const before = early;
    const next = mkdtempSync(join(tmpdir(), 'torvek-early-'));
    cpSync(database, next, { recursive: true });
    for (const entry of readdirSync(database, { recursive: true, withFileTypes: true })) {
      if (!entry.isFile()) continue;
      const path = join(entry.parentPath, entry.name);
      const old = before === null ? null : join(before, path.slice(database.length));
      const what = random();
      if (what < 0.3 && old !== null && existsSync(old)) cpSync(old, path);
      else if (what < 0.4)
        writeFileSync(path, readFileSync(path).subarray(0, Math.floor(statSync(path).size * random())));
    }
    for (const name of readdirSync(join(folder, 'journal')))
      if (random() < 0.5)
        writeFileSync(join(folder, 'journal', name), '0123456789abcdef{"n":', { flag: 'a' });
    if (before !== null) rmSync(before, { recursive: true });
    early = next;
    // Another start of the machine: the folder is not the one that was running.
    const copy = `${folder}-copy`;
    cpSync(folder, copy, { recursive: true, filter: (path) => !path.endsWith('/in-use') });
    rmSync(folder, { recursive: true });
    renameSync(copy, folder);
  };
  const { missing, doubled, chainFits, ...figures } = await runKillRounds(folder, rounds, true, cut);
  const holds = missing.length === 0 && doubled === 0 && chainFits && figures.slowestStartMs < 5000;
  report('power cuts', holds, { ...figures, missing: missing.length, doubled, chainFits });
  rmSync(folder, { recursive: true });
});

await part('alterations', 1000, async (count) => {
  const { unseen, classes } = await alterations(count, seed);
  report('alterations named', unseen.length === 0, { classes, unseen: unseen.slice(0, 10) });
});

await part('fuzz', 100_000, async (count) => {
  const bench = await openBench(false, undefined, { unlimited: true });
  const { bad, ...figures } = await fuzz(bench, count, seed);
  report('malformed requests', bad.length === 0, { ...figures, bad: bad.slice(0, 10) });
  await bench.close();
});

process.exitCode = failed ? 1 : 0;
