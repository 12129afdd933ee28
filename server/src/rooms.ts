import { join } from 'node:path';
import { systemClock, type Clock } from './clock';
import type { Database } from './database';
import { Ledger } from './entries/ledger';
import { Files } from './files/files';
import { Instruments } from './instruments/instruments';
import { Changes } from './jobs/changes';
import { Jobs } from './jobs/jobs';
import { Releases } from './jobs/releases';
import { Heads } from './journal/heads';
import type { Journal } from './journal/journal';
import { Writer } from './journal/writer';
import { LibraryParts } from './library/parts';
import { Hub } from './live/hub';
import { People } from './people/people';
import { Sessions } from './people/sessions';
import type { Store } from './store';
import { Nightly } from './take-away/nightly';
import { Verifier } from './verify/verifier';

/** What the routes work with. */
export interface Rooms {
  store: Store;
  database: Database;
  journal: Journal;
  writer: Writer;
  heads: Heads;
  dataFolder: string;
  clock: Clock;
  people: People;
  sessions: Sessions;
  instruments: Instruments;
  library: LibraryParts;
  jobs: Jobs;
  changes: Changes;
  ledger: Ledger;
  releases: Releases;
  files: Files;
  verifier: Verifier;
  nightly: Nightly;
  hub: Hub;
}

export interface RoomOptions {
  clock?: Clock;
  /** The invented people of the demo may sign in. */
  demoMode?: boolean;
  /** Backups are made by themselves. */
  nightlyBackups?: boolean;
}

export function openRooms(
  store: Store,
  { clock = systemClock, demoMode = false, nightlyBackups = false }: RoomOptions = {},
): Rooms {
  const { database, journal, dataFolder, secrets } = store;
  const heads = new Heads();
  const writer = new Writer(database, journal, clock, heads);
  const jobs = new Jobs(database, writer, clock);
  const hub = new Hub();
  const files = new Files(database, writer, join(dataFolder, 'files'), clock);
  const rooms: Omit<Rooms, 'nightly'> = {
    store,
    database,
    journal,
    writer,
    heads,
    dataFolder,
    clock,
    people: new People(database, writer, secrets, clock, demoMode),
    sessions: new Sessions(database, clock, demoMode),
    instruments: new Instruments(database, writer, clock),
    library: new LibraryParts(database, writer, clock),
    jobs,
    changes: new Changes(database, jobs, writer, clock, hub),
    ledger: new Ledger(database, jobs, writer, clock, hub),
    releases: new Releases(database, jobs, writer, clock),
    files,
    verifier: new Verifier(database, journal, writer, files, hub),
    hub,
  };
  return Object.assign(rooms, { nightly: new Nightly(rooms, nightlyBackups) });
}
