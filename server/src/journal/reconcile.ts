import type { Database, Queryable } from '../database';
import { Refused } from '../refused';
import { factKey, factsInDatabase, shopInDatabase } from './facts';
import type { Journal } from './journal';
import { lineOf, type Chain, type Head } from './lines';
import { shopChain, type JobFact, type RepairLink, type ShopFact } from './links';
import { projectJob, projectShop } from './project';
import { insertRows, rowsOfJob, rowsOfShop } from './rows';
import { tellShop } from './shop-story';
import { factsOf, tell } from './story';
import { keepHead } from './writer';

/** What a start found and did, in words for the log. */
export interface Reconciled {
  notes: string[];
  /** The embedded database cannot be brought up to the journals: it has to be built anew. */
  rebuild: boolean;
}

export interface ReconcileOptions {
  /** Chains whose last line is the one the database holds are not read through: see `scrub`. */
  quick?: boolean;
  /** This chain alone. */
  only?: string;
}

/**
 * Brings the database up to the journals. What they hold and it does not is brought in; lines that were damaged or lost are taken
 * up from what the database has of them, and that is recorded.
 *
 * @throws Refused when both tell of different histories
 */
export async function reconcile(
  database: Database,
  journal: Journal,
  now: string,
  { quick = false, only }: ReconcileOptions = {},
): Promise<Reconciled> {
  const notes: string[] = [];
  const rows = await database.query<{ name: string } & Head>('SELECT name, n, sha256 FROM chains');
  const positions = new Map(rows.map(({ name, n, sha256 }) => [name, { n, sha256 }]));
  const jobs = new Set([...journal.jobs(), ...positions.keys()]);
  jobs.delete(shopChain);
  for (const name of only === undefined ? [shopChain, ...jobs] : [only]) {
    const end = quick ? journal.tail(name) : null;
    if (end !== null && end.n === positions.get(name)?.n && end.sha256 === positions.get(name)?.sha256) {
      journal.stands(name, end);
      continue;
    }
    const chain = journal.read(name);
    journal.mend(name, chain);
    journal.stands(name, chain.head);
    const position = positions.get(name) ?? null;
    if (chain.head === null && position === null) continue;
    const done = await bringUp(database, name, chain, position);
    if (done === 'cannot') return { notes, rebuild: true };
    if (done > 0) notes.push(`${name}: ${done} links brought into the database`);
    const repaired = await repair(database, journal, name, chain, position, now);
    if (repaired !== null) notes.push(repaired);
  }
  return { notes, rebuild: false };
}

/** @returns how many links were brought in */
async function bringUp(
  database: Database,
  name: string,
  chain: Chain,
  position: Head | null,
): Promise<number | 'cannot'> {
  const { head, links } = chain;
  if (head === null || (position !== null && position.n >= head.n)) {
    const last = links.findLast(({ n }) => n === position!.n);
    if (last !== undefined && last.sha256 !== position!.sha256) throw otherHistory(name);
    return 0;
  }
  if (position === null) {
    await database.transaction(async (db) => {
      const there =
        name !== shopChain && (await db.query('SELECT id FROM jobs WHERE id = $1', [name])).length > 0;
      if (!there) await fill(db, name, chain);
      await keepHead(db, name, head);
    });
    return links.length;
  }
  const next = links.filter(({ n }) => n > position.n);
  const at = links.find(({ n }) => n === position.n);
  const follows =
    at !== undefined
      ? at.sha256 === position.sha256
      : [undefined, position.sha256].includes(next[0]?.previous ?? undefined);
  if (!follows) throw otherHistory(name);
  // What follows a line that was lost may lean on it: then only telling the whole chain anew is right.
  const gap = next.length > 0 && chain.damage.some(({ n }) => n > position.n);
  if (gap || next.some(({ body }) => body.kind === 'repair')) return 'cannot';
  try {
    await database.transaction(async (db) => {
      for (const link of next)
        if (name === shopChain) await projectShop(db, link);
        else await projectJob(db, name, link);
      await keepHead(db, name, head);
    });
  } catch {
    return 'cannot';
  }
  return next.length;
}

const otherHistory = (name: string) =>
  new Refused(
    `the database and the journal of ${name === shopChain ? 'the shop' : name} tell of different histories: one of them was altered or exchanged. ` +
      'Put back what belongs together, restore a backup (npm run restore -- <file>), or build the database anew from the journals: npm run rebuild.',
  );

/** Writes the rows that a whole chain tells of into tables that have none of them. */
export async function fill(db: Queryable, name: string, chain: Chain): Promise<void> {
  if (name === shopChain) {
    for (const rows of rowsOfShop(tellShop(chain))) await insertRows(db, rows);
    return;
  }
  const story = tell(chain);
  if (story === null) return;
  for (const rows of rowsOfJob(story)) await insertRows(db, rows);
}

/** Records what was damaged or lost in a journal, with what the database has of it. */
async function repair(
  database: Database,
  journal: Journal,
  name: string,
  chain: Chain,
  position: Head | null,
  now: string,
): Promise<string | null> {
  const mended = new Set(
    chain.links.flatMap(({ body }) =>
      body.kind === 'repair' ? (body as unknown as RepairLink<JobFact>).lines.map(({ n }) => n) : [],
    ),
  );
  const lines = chain.damage.filter(({ n }) => !mended.has(n));
  const have = chain.head?.n ?? 0;
  if (position !== null && position.n > have)
    lines.push({
      n: have + 1,
      message: position.n === have + 1 ? 'was lost' : `was lost, and all up to ${position.n}`,
    });
  if (lines.length === 0) return null;
  const contents = await missingFacts(database, name, chain);
  // The hash of a last line that is damaged is known to the database.
  const head = position !== null && position.n >= have ? position : chain.head;
  const body: RepairLink<JobFact | ShopFact> = { kind: 'repair', lines, contents };
  const { bytes, link } = lineOf(body, head, now);
  await journal.write(new Map([[name, { lines: [bytes] }]]));
  journal.stands(name, { n: link.n, sha256: link.sha256 });
  await database.transaction((db) => keepHead(db, name, { n: link.n, sha256: link.sha256 }));
  return `${name === shopChain ? 'the shop’s journal' : `the journal of ${name}`}: ${lines.map(({ n, message }) => `line ${n} ${message}`).join(', ')}; ${contents.length} facts taken up from the database`;
}

async function missingFacts(db: Queryable, name: string, chain: Chain): Promise<(JobFact | ShopFact)[]> {
  if (name === shopChain) {
    const story = tellShop(chain);
    const secrets = new Map([...story.people].map(([id, { secret }]) => [id, secret]));
    const known = new Set([
      ...[...story.people.keys()].map((id) => `person ${id}`),
      ...[...story.instruments.keys()].map((id) => `instrument ${id}`),
      ...[...story.retired.keys()].map((id) => `part-retired ${id}`),
      ...[...story.jobs.keys()].map((id) => `job-here ${id}`),
      ...story.parts.map((part) => factKey(part)),
    ]);
    return (await shopInDatabase(db, secrets)).filter(
      (one) => !known.has(factKey(one)) || hasMoved(one, story),
    );
  }
  const facts = await factsInDatabase(db, name);
  if (facts === null) return [];
  const story = tell(chain);
  const known = new Set(factsOf(chain).map(({ body }) => factKey(body)));
  const missing: JobFact[] = facts.filter((one) => !known.has(factKey(one)));
  if (story !== null && story.name !== facts[0].name)
    missing.push({ kind: 'name', name: facts[0].name, by: 'not known' });
  return missing;
}

/** What the database says of a person or an instrument is another thing than the chain's whole lines lead to. */
function hasMoved(fact: ShopFact, { people, instruments }: ReturnType<typeof tellShop>): boolean {
  if (fact.kind === 'person') {
    const known = people.get(fact.id);
    return known?.active !== fact.active || String(known?.roles) !== String(fact.roles);
  }
  if (fact.kind === 'instrument') {
    const known = instruments.get(fact.id);
    return known?.calibrationDue !== fact.calibrationDue || known?.retired !== fact.retired;
  }
  return false;
}
