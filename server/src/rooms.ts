import { join } from 'node:path';
import { systemClock, type Clock } from './clock';
import type { Database } from './database';
import { Journal } from './entries/journal';
import { Ledger } from './entries/ledger';
import type { Disk } from './files/disk';
import { Files } from './files/files';
import { Instruments } from './instruments/instruments';
import { LibraryParts } from './library/parts';
import { Hub } from './live/hub';
import { Changes } from './jobs/changes';
import { Jobs } from './jobs/jobs';
import { Releases } from './jobs/releases';
import { People } from './people/people';
import { Sessions } from './people/sessions';

/** What the routes work with. */
export interface Rooms {
  database: Database;
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
  hub: Hub;
}

export interface RoomOptions {
  clock?: Clock;
  /** The invented people of the demo may sign in. */
  demoMode?: boolean;
  /** What writes the journal; tests let it fail. */
  disk?: Disk;
}

export function openRooms(
  database: Database,
  dataFolder: string,
  { clock = systemClock, demoMode = false, disk }: RoomOptions = {},
): Rooms {
  const jobs = new Jobs(database, clock);
  const hub = new Hub();
  return {
    database,
    dataFolder,
    clock,
    people: new People(database, clock, demoMode),
    sessions: new Sessions(database, clock, demoMode),
    instruments: new Instruments(database, clock),
    library: new LibraryParts(database, clock),
    jobs,
    changes: new Changes(database, jobs, clock, hub),
    ledger: new Ledger(database, jobs, new Journal(join(dataFolder, 'journal'), disk), clock, hub),
    releases: new Releases(database, jobs, clock),
    files: new Files(database, join(dataFolder, 'files'), clock),
    hub,
  };
}
