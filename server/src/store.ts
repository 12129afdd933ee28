import { existsSync, mkdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { systemClock, type Clock } from './clock';
import { openDatabase, type Database } from './database';
import { syncFolder, type Disk } from './files/disk';
import { analyze, build, emptied, fillAll, isEmpty, messageOf, rebuildingName } from './build-database';
import { Guarded } from './database/guarded';
import { Journal } from './journal/journal';
import { lineOf } from './journal/lines';
import { shopChain } from './journal/links';
import { reconcile } from './journal/reconcile';
import { tellShop } from './journal/shop-story';
import { isOfBefore, takeUp } from './journal/take-up';
import { keepHead } from './journal/writer';
import { mark } from './marks';
import { Secrets } from './people/secrets';
import { Refused } from './refused';
import { finishRestore } from './take-away/restore';
import { ShopKey } from './take-away/signature';

/** What a data folder holds, opened: the journals, which are the truth, and the database that follows from them. */
export interface Store {
  database: Database;
  journal: Journal;
  dataFolder: string;
  /** Password hashes and second factors: they stand in the shop's journal and nowhere else. */
  secrets: Secrets;
  /** What was found and done at the start, in words. */
  notes: string[];
  /** The shop's own key. */
  key: ShopKey;
  /** Carries a staged restore to its end and goes on with what it brought. */
  replace(): Promise<void>;
  /** Ends in order: the next start knows that nothing was lost. */
  close(): Promise<void>;
}

export interface OpenOptions {
  clock?: Clock;
  /** What writes the journal; tests let it fail. */
  disk?: Disk;
  /** Build the database anew from the journals, whatever is there. */
  rebuild?: boolean;
  /** Open it though nobody is in the shop's journal: to make an owner. */
  withoutPeople?: boolean;
}

const runningName = 'running';

/**
 * A store over a database in memory: for tests.
 *
 * @param make opens an empty, migrated database
 */
export async function storeOf(
  make: () => Promise<Database>,
  dataFolder: string,
  disk?: Disk,
): Promise<Store> {
  const journal = new Journal(join(dataFolder, 'journal'), disk);
  return assemble(await make(), journal, dataFolder, [], () => undefined);
}

function assemble(
  first: Database,
  journal: Journal,
  dataFolder: string,
  notes: string[],
  ended: () => void,
): Store {
  const database = new Guarded(first);
  const secrets = new Secrets();
  readSecrets({ journal, secrets });
  return {
    database,
    journal,
    dataFolder,
    secrets,
    notes,
    key: ShopKey.of(dataFolder, (name, text) => mark(dataFolder, name, text)),
    async replace() {
      await database.alone(async (open) => {
        finishRestore(dataFolder, true);
        journal.forget();
        await emptied(open);
        await fillAll(open, journal, []);
      });
      rmSync(join(dataFolder, rebuildingName), { force: true });
      readSecrets({ journal, secrets });
    },
    async close() {
      await analyze(database);
      await database.close();
      ended();
    },
  };
}

/** Reads passwords, second factors and rules of the shop's journal anew. */
export function readSecrets({ journal, secrets }: Pick<Store, 'journal' | 'secrets'>): void {
  const { people, rules } = tellShop(journal.read(shopChain));
  secrets.clear();
  for (const [id, { secret }] of people) if (secret.passwordHash !== '') secrets.people.set(id, secret);
  Object.assign(secrets.rules, rules);
}

/**
 * Opens a data folder. A database that does not open, that a power cut may have left half written, or that cannot be brought up to
 * the journals is set aside and built anew from them.
 *
 * @throws Refused in words when what is there must not be touched
 */
export async function openStore(
  dataFolder: string,
  url: string | undefined,
  { clock = systemClock, disk, rebuild = false, withoutPeople = false }: OpenOptions = {},
): Promise<Store> {
  writable(dataFolder);
  const notes: string[] = [];
  const keptIn = finishRestore(dataFolder);
  if (keptIn !== null)
    notes.push(`a restore was carried to its end; what was there before lies in ${keptIn}`);
  const folder = join(dataFolder, 'journal');
  mkdirSync(folder, { recursive: true });
  const journal = new Journal(folder, disk);
  const kept = !isOfBefore(dataFolder) && (journal.has(shopChain) || journal.jobs().length > 0);
  const beside = kept || journal.jobs().length > 0;
  if (rebuild && !kept)
    throw new Refused(`there are no journals in ${dataFolder} from which a database could be built`);
  const reason = kept ? reasonToRebuild(dataFolder, url, rebuild) : null;
  let database: Database | null = null;
  if (reason === null) {
    if (beside && url === undefined && !existsSync(join(dataFolder, 'database')))
      throw lost(dataFolder, journal);
    try {
      database = await openDatabase(dataFolder, url);
    } catch (error) {
      if (!kept || url !== undefined) throw doesNotOpen(dataFolder, error);
      notes.push(`the database does not open (${messageOf(error)}) and is built anew from the journals`);
    }
  } else notes.push(reason);
  if (database !== null && beside && (await isEmpty(database))) {
    await database.close();
    throw lost(dataFolder, journal);
  }
  if (database !== null) {
    notes.push(...(await takeUp(database, dataFolder, clock.now())));
    journal.forget();
    const { notes: more, rebuild: cannot } = await reconcile(database, journal, clock.now(), {
      quick: true,
    }).catch(async (error: unknown) => {
      await database?.close();
      throw error;
    });
    notes.push(...more);
    if (cannot) {
      await database.close();
      database = null;
      notes.push('the database is behind the journals in a way that cannot be made up, and is built anew');
    }
  }
  if (database === null) database = await build(dataFolder, url, journal, clock, notes);
  notes.push(...(await adoptOrphans(database, journal, clock.now())));
  if (!withoutPeople) await refuseWithoutPeople(database, journal);
  mark(dataFolder, runningName, JSON.stringify(placeOf(dataFolder)));
  return assemble(database, journal, dataFolder, notes, () => {
    rmSync(join(dataFolder, runningName), { force: true });
    syncFolder(dataFolder);
  });
}

function reasonToRebuild(dataFolder: string, url: string | undefined, asked: boolean): string | null {
  if (asked) return 'the database is built anew from the journals';
  if (existsSync(join(dataFolder, rebuildingName)))
    return 'the database is built anew from the journals: a restore or an earlier attempt asks for it';
  if (url !== undefined) return null;
  const path = join(dataFolder, runningName);
  if (!existsSync(path)) return null;
  return readFileSync(path, 'utf8') === JSON.stringify(placeOf(dataFolder))
    ? null
    : 'the machine went down, or the folder was copied, while Torvek ran: the database may be half written and is built anew from the journals';
}

/** This start of this machine, and this very folder: after a mere kill both are the same. */
function placeOf(dataFolder: string): { boot: string; folder: string } {
  const { dev, ino } = statSync(dataFolder);
  const boot = '/proc/sys/kernel/random/boot_id';
  return { boot: existsSync(boot) ? readFileSync(boot, 'utf8').trim() : '', folder: `${dev}:${ino}` };
}

/**
 * A database without anything beside journals is not a new shop: it has lost what they tell of. Were it started, its first visitor
 * would become owner, and the journals would be written on.
 */
function lost(dataFolder: string, journal: Journal): Refused {
  const jobs = journal.jobs();
  const named = jobs.length === 0 ? '' : ` (${jobs.slice(0, 3).join(', ')}${jobs.length > 3 ? ', …' : ''})`;
  return new Refused(
    `the database of ${dataFolder} is empty or missing, but the journals of ${jobs.length} ${jobs.length === 1 ? 'job lie' : 'jobs lie'} beside it${named}. ` +
      'It was lost, or another folder is meant. Build it anew from the journals: npm run rebuild. Or put the folder “database” back, or restore a ' +
      'backup: npm run restore -- <file>. To begin anew, move the folder “journal” away.',
  );
}

/** Chains of jobs that the shop's chain does not know: a job that was coming in when the machine went down. */
async function adoptOrphans(database: Database, journal: Journal, now: string): Promise<string[]> {
  const shop = journal.read(shopChain);
  if (shop.head === null) return [];
  const known = tellShop(shop).jobs;
  const rows = await database.query<{ id: string; name: string }>('SELECT id, name FROM jobs ORDER BY id');
  const orphans = rows.filter(({ id }) => !known.has(id) && journal.has(id));
  let { head } = shop;
  for (const { id, name } of orphans) {
    const { bytes, link } = lineOf({ kind: 'job-here', id, name, by: 'found at the start' }, head, now);
    await journal.write(new Map([[shopChain, { lines: [bytes] }]]));
    head = { n: link.n, sha256: link.sha256 };
    journal.stands(shopChain, head);
    await keepHead(database, shopChain, head);
  }
  return orphans.map(({ id }) => `the chain of ${id} was found, which the shop did not know: it is taken up`);
}

/** Jobs and nobody: whoever came first would become owner of them. */
async function refuseWithoutPeople(database: Database, journal: Journal): Promise<void> {
  const [row] = await database.query<{ count: number | string }>('SELECT count(*) AS count FROM people');
  if (Number(row?.count ?? 0) > 0 || journal.jobs().length === 0) return;
  await database.close();
  throw new Refused(
    'there are jobs here, and nobody in the journal of the shop: it was lost. Restore a backup (npm run restore -- <file>), or make an owner: npm run owner -- <name>.',
  );
}

function doesNotOpen(dataFolder: string, error: unknown): Refused {
  return new Refused(
    `the database of ${dataFolder} does not open (${messageOf(error)}). Put a good copy of the folder “database” back, or restore a backup: npm run restore -- <file>.`,
  );
}

function writable(dataFolder: string): void {
  try {
    mkdirSync(dataFolder, { recursive: true });
    mark(dataFolder, '.can-write', '');
    rmSync(join(dataFolder, '.can-write'), { force: true });
  } catch (error) {
    throw new Refused(
      `the data folder ${dataFolder} cannot be written to (${(error as { code?: string }).code ?? messageOf(error)}): check its owner, its rights, and the room on the disk`,
    );
  }
}
