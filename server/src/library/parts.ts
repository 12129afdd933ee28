import type { Design } from '@torvek/core/document';
import {
  makeLibrary,
  planArrivals,
  sameContent,
  type Arrival,
  type Library,
  type OwnPart,
} from '@torvek/core/library';
import type { Part } from '@torvek/core/parts';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import type { Turn, Writer } from '../journal/writer';
import { HttpError, notFound } from '../http/errors';

/** The shop's own parts as they are sent to a browser; the starter catalogue ships with it. */
export interface Shelf {
  own: OwnPart[];
  retired: string[];
}

/** Which parts a job uses. */
export interface PartUse {
  job: string;
  name: string;
  keys: string[];
}

interface Row {
  id: string;
  content: string;
  note: string;
  saved_by: string;
  saved_at: string;
}

/** The shop's library of parts: revisions are added, nothing is rewritten. */
export class LibraryParts {
  private joined: Library | null = null;

  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly clock: Clock,
  ) {}

  async shelf(on: Queryable = this.database): Promise<Shelf> {
    const rows = await on.query<Row>('SELECT * FROM library_parts ORDER BY saved_at, id, revision');
    const retired = await on.query<{ id: string }>('SELECT id FROM library_retired ORDER BY id');
    return {
      own: rows.map(({ content, note, saved_by, saved_at }) => ({
        part: JSON.parse(content) as Part,
        note,
        savedBy: saved_by,
        savedAt: saved_at,
      })),
      retired: retired.map(({ id }) => id),
    };
  }

  /** The joined library; the same object until something is saved. */
  async library(on: Queryable = this.database): Promise<Library> {
    if (this.joined === null) {
      const { own, retired } = await this.shelf(on);
      this.joined = makeLibrary(own, retired);
    }
    return this.joined;
  }

  /** Forgets what was read: the data was replaced. */
  forget(): void {
    this.joined = null;
  }

  /**
   * Saves one revision. The same again changes nothing.
   *
   * @throws HttpError 409 when somebody saved this revision with another content, or when it does not follow on the newest
   */
  async save(part: Part, note: string, by: string): Promise<Shelf> {
    await this.write(async (library, turn) => {
      const known = library.revisions(part.id);
      const there = known.find(({ revision }) => revision === part.revision);
      if (there !== undefined && sameContent(there, part)) return;
      const next = (known.at(-1)?.revision ?? 0) + 1;
      if (part.revision !== next)
        throw new HttpError(
          409,
          'revision-taken',
          `${part.id} is at revision ${next - 1}: what is saved next is revision ${next}`,
          [],
          { next },
        );
      if (known[0] !== undefined && known[0].kind !== part.kind)
        throw new HttpError(409, 'other-kind', `${part.id} is a ${known[0].kind}`);
      await this.add(part, note, by, turn);
    });
    return this.shelf();
  }

  /** Takes parts of a file in: new ones, and other contents as next revisions. All or nothing. */
  async takeIn(parts: readonly Part[], note: string, by: string): Promise<Arrival[]> {
    return this.write(async (library, turn) => {
      const arrivals = planArrivals(parts, library.revisions);
      for (const [i, arrival] of arrivals.entries()) {
        const first = library.revisions(arrival.part.id)[0];
        if (first !== undefined && first.kind !== arrival.part.kind)
          throw new HttpError(409, 'other-kind', `part ${i + 1}: ${arrival.part.id} is a ${first.kind}`);
        if (arrival.as !== 'same') await this.add(arrival.part, note, by, turn);
      }
      return arrivals;
    });
  }

  async retire(id: string, retired: boolean, by: string): Promise<Shelf> {
    await this.write(async (library, turn) => {
      if (library.revisions(id).length === 0) throw notFound('this part');
      const there = await turn.db.query('SELECT id FROM library_retired WHERE id = $1', [id]);
      if (there.length > 0 !== retired)
        await turn.shop({ kind: 'part-retired', id, retired, by, retiredAt: this.clock.now() });
    });
    return this.shelf();
  }

  /** Which parts each job uses. */
  async uses(): Promise<PartUse[]> {
    const rows = await this.database.query<{ id: string; name: string; design: string }>(
      'SELECT id, name, design FROM jobs ORDER BY name',
    );
    return rows.map(({ id, name, design }) => ({
      job: id,
      name,
      keys: Object.keys((JSON.parse(design) as Design).parts),
    }));
  }

  private async write<T>(work: (library: Library, turn: Turn) => Promise<T>): Promise<T> {
    try {
      return await this.writer.write(async (turn) => {
        this.joined = null;
        const result = await work(await this.library(turn.db), turn);
        // Whoever has the next turn reads what this one saved.
        this.joined = null;
        return result;
      });
    } finally {
      this.joined = null;
    }
  }

  private async add(part: Part, note: string, by: string, turn: Turn): Promise<void> {
    await turn.shop({ kind: 'part', part, note, by, savedAt: this.clock.now() });
  }
}
