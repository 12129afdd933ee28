import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { Express } from 'express';
import request from 'supertest';
import type { Role } from '@torvek/core/record';
import { routeTable } from '../src/app';
import type { Bench } from './bench-room';
import { changeOf, makeBus, positionRequest, signIn } from './bench-room';

/** A generator of numbers that begins anywhere and goes the same way each time (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const words = [
  'id',
  'name',
  'roles',
  'password',
  'body',
  'kind',
  'forward',
  'inverse',
  'op',
  'path',
  'value',
  'base',
  'label',
  'at',
  'takenAt',
  'linksOut',
  'mains',
  'witness',
  'of',
  'reason',
  'part',
  'parts',
  'retired',
  'calibrationDue',
  'serial',
  'step',
  'measured',
  'instrument',
  'subjects',
  'attachments',
  'text',
  'version',
  '__proto__',
  'constructor',
  'toString',
];

const texts = [
  '',
  'job-bus',
  'position',
  'correction',
  'note',
  'gate',
  '\u0000',
  'x\u0000y',
  'ä'.repeat(200),
  "'; DROP TABLE jobs; --",
  '../../etc/passwd',
  '__proto__',
  '2026-11-25T08:00:00Z',
  '{"a":1}',
  'replace',
  '/vehicle/year',
  '/__proto__/x',
  '/modules/-',
  '/~2',
  '9'.repeat(400),
];

const numbers = [0, -1, 1, 1e308, -1e308, 1e-320, 2 ** 53, 0.5, 4_294_967_296, -0];

function valueOf(random: () => number, depth: number): unknown {
  const pick = <One>(list: readonly One[]): One => list[Math.floor(random() * list.length)]!;
  const kind = random();
  if (kind < 0.3) return pick(texts);
  if (kind < 0.5) return pick(numbers);
  if (kind < 0.6) return pick([null, true, false]);
  if (depth > 4) return null;
  if (kind < 0.75) return Array.from({ length: Math.floor(random() * 4) }, () => valueOf(random, depth + 1));
  return objectOf(random, depth + 1);
}

function objectOf(random: () => number, depth: number): Record<string, unknown> {
  const made: Record<string, unknown> = Object.create(null) as Record<string, unknown>;
  for (let i = Math.floor(random() * 8); i > 0; i -= 1)
    made[words[Math.floor(random() * words.length)]!] = valueOf(random, depth);
  return made;
}

/** A good body with one thing wrong in it: the doors behind the first are reached, too. */
function spoilt(random: () => number, good: object): unknown {
  const copy = JSON.parse(JSON.stringify(good)) as Record<string, unknown>;
  let at: Record<string, unknown> = copy;
  for (;;) {
    const keys = Object.keys(at);
    if (keys.length === 0) return copy;
    const key = keys[Math.floor(random() * keys.length)]!;
    const below = at[key];
    if (typeof below === 'object' && below !== null && random() < 0.6) {
      at = below as Record<string, unknown>;
      continue;
    }
    const what = random();
    if (what < 0.2) delete at[key];
    else if (what < 0.4) at[words[Math.floor(random() * words.length)]!] = valueOf(random, 2);
    else at[key] = valueOf(random, 2);
    return copy;
  }
}

export interface FuzzReport {
  sent: number;
  /** How often each status was answered. */
  statuses: Record<number, number>;
  /** Requests that were answered 5xx, or refused and changed something all the same. */
  bad: string[];
}

/** What there is on the disk and in the tables: a refused request must leave it as it was. */
async function stateOf({ folder, database }: Bench): Promise<string> {
  const journal = join(folder, 'journal');
  const sizes = readdirSync(journal).map((name) => [name, statSync(join(journal, name)).size]);
  const rows = await database.query<{ text: string }>(
    `SELECT json_build_array(
       (SELECT json_agg(c ORDER BY name) FROM chains c), (SELECT json_agg(p ORDER BY id) FROM people p),
       (SELECT count(*) FROM entries), (SELECT count(*) FROM changes), (SELECT count(*) FROM files),
       (SELECT md5(string_agg(design, ',' ORDER BY id)) FROM jobs))::text AS text`,
  );
  return JSON.stringify([sizes, rows[0]!.text]);
}

/** Sends malformed requests to every route with every kind of session. */
export async function fuzz(bench: Bench, count: number, seed: number): Promise<FuzzReport> {
  const random = seeded(seed);
  const pick = <One>(list: readonly One[]): One => list[Math.floor(random() * list.length)]!;
  const design = await makeBus(bench);
  const all: Role[] = ['witness', 'technician', 'designer', 'owner'];
  const cookies: (string | null)[] = [null, 'torvek_session=nonsense'];
  for (const role of all) cookies.push(await signIn(bench.rooms, `Fuzz-${role}`, [role]));
  const routes = routeTable(bench.rooms).filter(
    ({ path }) => !['/restore', '/session/end-everywhere'].includes(path),
  );
  const goods: object[] = [
    changeOf(design, 0, 'fuzz-change', (draft) => void (draft.pack.peakCurrentA = 321)),
    positionRequest('fuzz-entry'),
    { id: 'fuzz-note', kind: 'note', takenAt: '2026-11-25T08:00:00Z', text: 'a note', subjects: [] },
    {
      id: 'fuzz-gate',
      kind: 'gate',
      gate: 'first-hv',
      takenAt: '2026-11-25T08:00:00Z',
      witness: { name: 'x', password: 'y' },
    },
    { id: 'fuzz-job', name: 'Fuzz' },
    { id: 'fuzz-person', name: 'Fuzz', roles: ['witness'], password: 'a long enough one' },
    { id: 'fuzz-i', kind: 'meter', name: 'M', serial: 'S', calibrationDue: '2027-01-01' },
    { id: 'fuzz-r', label: 'r', version: 0 },
    { text: 'torvek-head 1 job-bus 1 ' },
  ];
  const parameter = () =>
    pick([
      'job-bus',
      'unknown',
      '%00',
      '%ED%A0%80',
      '%',
      '..',
      '%2e%2e',
      '-1',
      '0',
      '1',
      'a'.repeat(300),
      '9'.repeat(12),
      '%27',
      'constructor',
    ]);
  const report: FuzzReport = { sent: 0, statuses: {}, bad: [] };
  let before = await stateOf(bench);
  for (let i = 0; i < count; i += 1) {
    const route = pick(routes);
    const path = `/api${route.path.replace(/:\w+/g, parameter)}${random() < 0.3 ? `?${pick(words)}=${parameter()}&before=${parameter()}&from=${parameter()}` : ''}`;
    const cookie = pick(cookies);
    const body =
      random() < 0.5
        ? JSON.stringify(spoilt(random, pick(goods)))
        : pick([
            () => JSON.stringify(objectOf(random, 0)),
            () => JSON.stringify(valueOf(random, 0)) ?? '',
            () => '{"a":"\\ud800"}',
            () => '{'.repeat(50),
            () => '['.repeat(3000) + ']'.repeat(3000),
            () => '{"__proto__":{"role":"owner"}}',
            () => 'null',
            () => '\u0000\u0001',
          ])();
    const status = await send(
      bench.bare,
      route.method,
      path,
      cookie,
      body,
      pick(['application/json', 'text/plain', 'application/octet-stream', 'multipart/form-data']),
    );
    report.sent += 1;
    report.statuses[status] = (report.statuses[status] ?? 0) + 1;
    const said = `${route.method} ${path.slice(0, 200)} ${body.slice(0, 300)}`;
    if (status >= 500) report.bad.push(`${status} ${said}`);
    // Looked at now and then: what was refused in between must all have changed nothing.
    if (status < 400 || i % 10 === 0) {
      await bench.rooms.writer.idle();
      const after = await stateOf(bench);
      if (status >= 400 && after !== before) report.bad.push(`changed something before ${said}`);
      before = after;
    }
  }
  return report;
}

async function send(
  app: Express,
  method: 'get' | 'post' | 'patch',
  path: string,
  cookie: string | null,
  body: string,
  type: string,
): Promise<number> {
  const sent = request(app)[method](path);
  if (cookie !== null) sent.set('Cookie', cookie);
  if (method === 'get') return (await sent).status;
  return (
    await sent
      .set('Content-Type', type)
      .serialize((text: unknown) => text as string)
      .send(body)
  ).status;
}
