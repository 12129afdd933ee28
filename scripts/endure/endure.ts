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
import type { Design } from '@torvek/core/document';
import { libraryBus } from '../../demo/library-bus';
import { changeOf, openBench, positionRequest } from '../../server/test/bench-room';
import { runEditors } from '../../server/test/editors';
import { fuzz, seeded } from '../../server/test/fuzz';
import { runKillRounds } from '../../server/test/kill-rounds';
import { killProcess, startProcess } from '../../server/test/real-process';
import { rawRequest, rawUpgrade, runResets } from '../../server/test/resets';
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

/** The built server on a folder of its own, with an owner signed in and a job. */
async function withServer(
  run: (at: { url: string; host: string; cookie: string; job: string }) => Promise<void>,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'torvek-endure-'));
  const { child, url } = await startProcess(folder, true, false);
  const post = (path: string, body: object, cookie = '') =>
    fetch(url + path, { method: 'POST', body: JSON.stringify(body), headers: { cookie } });
  const owner = { id: 'person-endure', name: 'Test', password: 'a long enough one' };
  const cookie = (await post('/api/owner', owner)).headers.get('set-cookie')!.split(';')[0]!;
  const job = 'job-endure';
  const { design } = (await (await post('/api/jobs', { id: job, name: 'Endure' }, cookie)).json()) as {
    design: Design;
  };
  const whole = changeOf(design, 0, 'whole', (draft) => void Object.assign(draft, libraryBus.design));
  const saved = await post(`/api/jobs/${job}/changes`, whole, cookie);
  if (!saved.ok) throw new Error(await saved.text());
  await run({ url, host: new URL(url).host, cookie, job });
  await killProcess(child);
  rmSync(folder, { recursive: true });
}

await part('editors', 40, (editors) =>
  withServer(async ({ url, cookie, job }) => {
    const first = { design: libraryBus.design, base: 1 };
    // A change in four seconds is somebody who edits without a pause.
    const { lost, chainFits, ...figures } = await runEditors(url, cookie, job, first, {
      editors,
      saves: 15,
      pauseMs: 4000,
    });
    const holds = lost.length === 0 && chainFits && figures.medianMs < 100;
    report('people who edit one job at once', holds, { editors, ...figures, lost, chainFits });
  }),
);

await part('resets', 2000, (count) =>
  withServer(async ({ url, host, cookie, job }) => {
    const json = (value: object) => Buffer.from(JSON.stringify(value));
    const at = (method: string, path: string, body?: Buffer) => rawRequest(host, cookie, method, path, body);
    const requests = [
      at('GET', '/'),
      at('GET', `/api/jobs/${job}`),
      at('POST', `/api/jobs/${job}/entries`, json(positionRequest('reset-1'))),
      at('POST', `/api/jobs/${job}/files?name=a.txt`, Buffer.alloc(300_000, 'words ')),
      at('GET', `/api/jobs/${job}/export`),
      at('GET', `/api/jobs/${job}/verify`),
      at('GET', '/api/backup'),
      at('POST', '/api/evaluate', json({ design: libraryBus.design })),
      at('POST', '/api/import', Buffer.alloc(50_000)),
      rawUpgrade(host, cookie, job),
    ];
    const figures = await runResets(host, requests, count, seed);
    const verify = () => fetch(`${url}/api/jobs/${job}/verify`, { headers: { cookie } });
    let answer = await verify();
    // So many heavy requests a minute and no more: most of those that were hung up on counted.
    for (; answer.status === 429; answer = await verify())
      await new Promise((resolve) => setTimeout(resolve, 5000));
    const { ok } = (await answer.json()) as { ok: boolean };
    report('hanging up in the middle', ok, { ...figures, chainFits: ok });
  }),
);

process.exitCode = failed ? 1 : 0;
