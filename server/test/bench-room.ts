import { readFileSync } from 'node:fs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Design } from '@torvek/core/document';
import type { Role } from '@torvek/core/record';
import { edit } from '@torvek/core/document';
import type { PGlite } from '@electric-sql/pglite';
import express, { type Express } from 'express';
import { pino } from 'pino';
import { libraryBus } from '../../demo/library-bus';
import { createApp, type AppOptions } from '../src/app';
import type { Clock } from '../src/clock';
import { emptied } from '../src/build-database';
import { openPglite, wrapPglite, type Database } from '../src/database';
import type { Disk } from '../src/files/disk';
import type { ChangeRequest } from '../src/jobs/changes';
import { sessionCookie } from '../src/people/sessions';
import { openRooms, type Rooms } from '../src/rooms';
import { storeOf } from '../src/store';
import { templatePath } from './template-database';

/** A clock that moves a second each time it is read. */
export class TickingClock implements Clock {
  private at = Date.parse('2026-11-25T08:00:00Z');
  now(): string {
    this.at += 1000;
    return new Date(this.at).toISOString();
  }
}

/** A server without a network: fresh database, journal folder, application. */
export interface Bench {
  /** The application with the owner “Test” signed in, unless a request brings another cookie. */
  app: Express;
  /** The application as a stranger meets it. */
  bare: Express;
  rooms: Rooms;
  database: Database;
  folder: string;
  close(): Promise<void>;
}

/** The engines of environment.mjs; not there in a script. */
declare global {
  var databasePool:
    undefined | { take(): Promise<{ lite: PGlite; used: boolean }>; giveBack(lite: PGlite): void };
}

/** An empty, migrated database in memory; closing it gives its engine to the next test. */
export async function freshDatabase(): Promise<Database> {
  const pool = globalThis.databasePool;
  if (pool === undefined) return openPglite(new Blob([readFileSync(templatePath)]));
  const { lite, used } = await pool.take();
  // Its errors are made outside the test’s own world, where they would be no instances of Error.
  const asOurs = <Result>(work: Promise<Result>): Promise<Result> =>
    work.catch((error: Error) => Promise.reject(Object.assign(new Error(error.message), error)));
  const database = wrapPglite({
    query: <Row>(...given: Parameters<PGlite['query']>) => asOurs(lite.query<Row>(...given)),
    exec: (...given) => asOurs(lite.exec(...given)),
    close: async () => pool.giveBack(lite),
  });
  if (used) await emptied(database);
  return database;
}

export async function openBench(
  demoMode = false,
  disk?: Disk,
  more: Partial<AppOptions> = {},
): Promise<Bench> {
  const folder = mkdtempSync(join(tmpdir(), 'torvek-test-'));
  const store = await storeOf(freshDatabase, folder, disk);
  const { database } = store;
  const rooms = openRooms(store, { clock: new TickingClock(), demoMode });
  const bare = express();
  // Each request of a test comes by another port: to a browser all of them are one server.
  bare.use((request, _response, next) => {
    request.headers.host = request.headers.host?.replace(/^(127\.0\.0\.1):[3-6]\d{4}$/, '$1');
    next();
  });
  const product = createApp({
    rooms,
    logger: pino({ level: 'silent' }),
    allowedHosts: new Set(['127.0.0.1', 'localhost']),
    webFolder: null,
    ...more,
  });
  bare.use(product);
  const cookie = await signIn(rooms, 'Test', ['owner']);
  const app = express();
  app.use((request, _response, next) => {
    request.headers.cookie ??= cookie;
    next();
  }, bare);
  return {
    app,
    bare,
    rooms,
    database,
    folder,
    async close() {
      await rooms.writer.idle();
      await database.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Everyone's password in tests. */
export const testPassword = 'a long enough one';

/** Makes a person and signs them in; answers with the cookie. */
export async function signIn(rooms: Rooms, name: string, roles: Role[]): Promise<string> {
  const id = `person-${name.toLowerCase()}`;
  const person = await rooms.people.create({ id, name, roles, password: testPassword }, 'Test');
  return `${sessionCookie}=${await rooms.sessions.begin(person)}`;
}

/** The demo bus as a job of its own, without its history. */
export async function makeBus(bench: Bench, id = 'job-bus'): Promise<Design> {
  return (await bench.rooms.jobs.create(id, 'Bus', 'Test', { design: libraryBus.design })).design;
}

/** A change as a client would send it. */
export function changeOf(
  design: Design,
  base: number,
  id: string,
  recipe: (draft: Design) => void,
): ChangeRequest {
  const edited = edit(design, (draft) => recipe(draft as Design));
  if (edited === null) throw new Error('the recipe changes nothing');
  const { forward, inverse } = edited;
  return { id, base, label: `change ${id}`, at: '2026-11-25T08:00:00Z', forward, inverse };
}

/** A position entry as a client would send it: the simplest there is. */
export const positionRequest = (id: string, linksOut = 2) => ({
  id,
  kind: 'position',
  takenAt: '2026-11-25T08:00:00Z',
  linksOut,
  serviceDisconnect: 'out',
  mains: 'open',
});
