import type { RecordProblem as Problem, Verification } from '@torvek/core/record';
import type { Database } from '../database';
import type { Files } from '../files/files';
import { heavy } from '../heavy/heavy';
import type { Journal } from '../journal/journal';
import type { Head } from '../journal/lines';
import { shopChain } from '../journal/links';
import { digestsIn, rowProblems, type Digests, type RowProblem } from '../journal/compare';
import { tablesOfJob, tablesOfShop, type Rows } from '../journal/rows';
import type { Writer } from '../journal/writer';
import type { Hub } from '../live/hub';
import type { Audit } from './audit';

/** Most problems that are named. */
const mostNamed = 200;

/** Holds journals, database and files against each other, and says what does not fit. */
export class Verifier {
  constructor(
    private readonly database: Database,
    private readonly journal: Journal,
    private readonly writer: Writer,
    private readonly files: Files,
    private readonly hub: Pick<Hub, 'publish'>,
  ) {}

  /** A job: its chain, its versions, its record, its releases, every row in the database, every file, and what the shop knows of it. */
  async job(id: string): Promise<Verification> {
    const path = this.journal.path(id);
    const tables = tablesOfJob(id);
    const said = await this.shopSays();
    const known = said.heads[id];
    const held = await this.heldUpTo(id);
    const asked = [known, held].flatMap((one) => (one == null ? [] : [one.n]));
    // The journal is read in one thread while the database tells in another what it holds.
    const [audit, found] = await Promise.all([
      heavy('auditJob', { path, asked }, this.journal.size(id)),
      this.digestsOf(tables, (done) => this.progress(id, done * 0.9)),
    ]);
    const problems = [
      ...audit.problems,
      ...againstShop(id, audit, known, said.jobs),
      ...againstHeld('the journal', audit, held),
      ...(await this.rowsAgainst(id, tables, audit, found)),
      ...(await this.filesOf(audit)),
      ...(await this.quotedIn(audit)),
    ];
    return verificationOf(audit, problems);
  }

  /** The shop: people, instruments, library, and that every job it knows of is here. */
  async shop(): Promise<Verification> {
    const path = this.journal.path(shopChain);
    const held = await this.heldUpTo(shopChain);
    const asked = held === null ? [] : [held.n];
    const [audit, found] = await Promise.all([
      heavy('auditShop', { path, asked }, this.journal.size(shopChain)),
      this.digestsOf(tablesOfShop, () => undefined),
    ]);
    const problems = [...audit.problems, ...againstHeld('the shop’s journal', audit, held)];
    if (audit.head === null) problems.push({ what: 'the shop’s journal', seq: null, message: 'is missing' });
    problems.push(...(await this.jobsAgainst(new Map(audit.jobs))));
    problems.push(...(await this.rowsAgainst(shopChain, tablesOfShop, audit, found)));
    return verificationOf(audit, problems);
  }

  /** Jobs that the shop knows, those with a journal, and those in the database must be the same. */
  private async jobsAgainst(known: ReadonlyMap<string, string>): Promise<Problem[]> {
    const rows = await this.database.query<{ id: string; name: string }>('SELECT id, name FROM jobs');
    const there = new Map(rows.map(({ id, name }) => [id, name]));
    const journals = new Set(this.journal.jobs());
    return [...new Set([...known.keys(), ...there.keys(), ...journals])].flatMap((id): Problem[] => {
      const what = `the job ${known.get(id) ?? there.get(id) ?? id} (${id})`;
      const problem = (message: string): Problem[] => [{ what, seq: null, message }];
      if (known.has(id) && !journals.has(id))
        return problem('is gone with its journal: the shop’s journal knows it');
      if (journals.has(id) && !known.has(id))
        return problem('has a journal that the shop’s journal does not know');
      if (!journals.has(id)) return problem('is in the database, and was never recorded');
      return there.has(id) ? [] : problem('is missing in the database');
    });
  }

  private async shopSays(): Promise<{ jobs: Map<string, string>; heads: Record<string, Head> }> {
    const path = this.journal.path(shopChain);
    const { jobs, heads } = await heavy('auditShop', { path, asked: [] }, this.journal.size(shopChain));
    return { jobs: new Map(jobs), heads };
  }

  /** Up to which link the database holds a chain. */
  private async heldUpTo(chain: string): Promise<Head | null> {
    const [row] = await this.database.query<Head>('SELECT n, sha256 FROM chains WHERE name = $1', [chain]);
    return row ?? null;
  }

  private async digestsOf(tables: readonly Rows[], progress: (done: number) => void): Promise<Digests[]> {
    const found: Digests[] = [];
    for (const [i, rows] of tables.entries())
      found.push(await digestsIn(this.database, rows, (done) => progress((i + done) / tables.length)));
    return found;
  }

  private async rowsAgainst(
    chain: string,
    tables: readonly Rows[],
    { digests }: Pick<Audit, 'digests'>,
    found: readonly Digests[],
  ): Promise<Problem[]> {
    const wanted = tables.flatMap((_rows, table) => {
      const expected: Digests = digests[table] ?? new Map<number, string>();
      const there = found[table]!;
      return [...new Set([...expected.keys(), ...there.keys()])]
        .filter((page) => expected.get(page) !== there.get(page))
        .map((page) => ({ table, page }));
    });
    if (wanted.length === 0) return [];
    // Between two batches: what was written meanwhile is in both by then.
    return this.writer.alone(async () => {
      const path = this.journal.path(chain);
      const shop = chain === shopChain;
      const some = wanted.slice(0, mostNamed);
      const expected = await heavy('expectedPages', { path, shop, wanted: some }, this.journal.size(chain));
      const problems: Problem[] = [];
      for (const [i, { table, page }] of some.entries()) {
        const rows = tables[table]!;
        for (const one of await rowProblems(this.database, rows, page, expected[i]!))
          problems.push(named(rows.table, one));
      }
      return problems;
    });
  }

  /** What is quoted of jobs that are here must be the entry that stands there; of jobs elsewhere its own hash is all there is. */
  private async quotedIn({ quotations }: Audit): Promise<Problem[]> {
    const problems: Problem[] = [];
    const hashes = new Map<string, Map<number, string>>();
    for (const { by, job, jobName, seq, sha256 } of quotations) {
      const there = hashes.get(job) ?? (await this.hashesOf(job, quotations));
      hashes.set(job, there);
      if (there.size > 0 && there.get(seq) !== sha256)
        problems.push({
          what: `entry ${by}`,
          seq: by,
          message: `quotes entry ${seq} of ${jobName} otherwise than it stands there`,
        });
    }
    return problems;
  }

  /** Hashes of the quoted entries of a job, by number; none when the job is not here. */
  private async hashesOf(job: string, quotations: Audit['quotations']): Promise<Map<number, string>> {
    const numbers = quotations.filter((one) => one.job === job).map(({ seq }) => seq);
    const rows = await this.database.query<{ seq: number; sha256: string | null }>(
      `SELECT asked.seq, entries.sha256
       FROM jobs CROSS JOIN (SELECT value::integer AS seq FROM json_array_elements_text($2::json)) AS asked
       LEFT JOIN entries ON entries.job_id = jobs.id AND entries.seq = asked.seq
       WHERE jobs.id = $1`,
      [job, JSON.stringify([...new Set(numbers)])],
    );
    return new Map(rows.map(({ seq, sha256 }) => [seq, sha256 ?? 'not there']));
  }

  private async filesOf({ files }: Audit): Promise<Problem[]> {
    const problems: Problem[] = [];
    for (const sha256 of files) {
      const state = await this.files.state(sha256);
      if (state !== 'whole')
        problems.push({
          what: `the file ${sha256.slice(0, 12)}…`,
          seq: null,
          message: state === 'missing' ? 'is missing in the folder' : 'is not what was stored',
        });
    }
    return problems;
  }

  private progress(job: string, fraction: number): void {
    this.hub.publish(job, { kind: 'progress', task: 'verify', fraction });
  }
}

function againstHeld(what: string, { head, linkHashes }: Audit, held: Head | null): Problem[] {
  const problem = (message: string): Problem[] => [{ what, seq: null, message }];
  if (held === null)
    return head === null
      ? []
      : problem('is not known to the database, which does not say up to where it holds it');
  return linkHashes.some(([n, sha256]) => n === held.n && sha256 === held.sha256)
    ? []
    : problem(`has another link ${held.n} than the database knows`);
}

function againstShop(
  id: string,
  { head, linkHashes }: Audit,
  known: Head | undefined,
  jobs: ReadonlyMap<string, string>,
): Problem[] {
  const problem = (message: string): Problem[] => [{ what: 'the journal', seq: null, message }];
  if (!jobs.has(id)) return problem('is not known to the shop’s journal');
  if (known === undefined) return [];
  if ((head?.n ?? 0) < known.n)
    return problem(`ends at link ${head?.n ?? 0}; the shop’s journal knows ${known.n}`);
  return linkHashes.some(([n, sha256]) => n === known.n && sha256 === known.sha256)
    ? []
    : problem(`has another link ${known.n} than the shop’s journal knows`);
}

const thing: Record<string, string> = {
  jobs: 'the job',
  changes: 'version',
  entries: 'entry',
  releases: 'release',
  files: 'the file',
  people: 'the person',
  instruments: 'the instrument',
  library_parts: 'the part',
  library_retired: 'the retired part',
};

const inWords = (key: string | number | boolean | null) =>
  /^[0-9a-f]{64}$/.test(String(key)) ? `${String(key).slice(0, 12)}…` : String(key);

function named(table: string, { key, message }: RowProblem): Problem {
  const what = table === 'jobs' ? 'the job' : `${thing[table]} ${key.map(inWords).join(' revision ')}`;
  return { what, seq: table === 'entries' ? Number(key[0]) : null, message };
}

function verificationOf(audit: Audit, problems: Problem[]): Verification {
  const seen = new Set<string>();
  const distinct = problems.filter(({ what, message }) => {
    const key = `${what} ${message}`;
    return seen.has(key) ? false : seen.add(key);
  });
  // In the order of the record, what is about no entry first.
  distinct.sort((a, b) => (a.seq ?? 0) - (b.seq ?? 0));
  return {
    ok: distinct.length === 0,
    entries: audit.entries,
    versions: audit.versions,
    files: audit.files.length,
    problems: distinct.slice(0, mostNamed),
    head: audit.head,
    restored: audit.takenUp?.restored ?? [],
    repairs: audit.repairs,
    notWitnessed:
      audit.takenUp === null
        ? null
        : { links: audit.takenUp.links, at: audit.takenUp.at, problems: audit.takenUp.problems },
    vouchedBy: audit.vouchedBy,
  };
}
