import { join } from 'node:path';
import { systemClock, type Clock } from './clock';
import type { Database } from './database';
import { Journal } from './entries/journal';
import { Ledger } from './entries/ledger';
import { Changes } from './jobs/changes';
import { Jobs } from './jobs/jobs';

/** What the routes work with. */
export interface Rooms {
  jobs: Jobs;
  changes: Changes;
  ledger: Ledger;
}

export function openRooms(database: Database, dataFolder: string, clock: Clock = systemClock): Rooms {
  const jobs = new Jobs(database, clock);
  return {
    jobs,
    changes: new Changes(database, jobs, clock),
    ledger: new Ledger(database, jobs, new Journal(join(dataFolder, 'journal')), clock),
  };
}
