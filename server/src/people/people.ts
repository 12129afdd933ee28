import { mayWitness, type Person, type Role } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import type { Writer } from '../journal/writer';
import { HttpError, notFound } from '../http/errors';
import { Attempts } from './attempts';
import { checkPassword, hashPassword } from './passwords';

interface PersonRow {
  id: string;
  name: string;
  roles: string;
  demo: boolean;
  active: boolean;
}

const ofRow = ({ id, name, roles, demo, active }: PersonRow): Person => ({
  id,
  name,
  roles: JSON.parse(roles) as Role[],
  demo,
  active,
});

export interface NewPerson {
  id: string;
  name: string;
  roles: Role[];
  password: string;
}

/** The people of the shop. A name is for good: the record carries it. */
export class People {
  private readonly attempts = new Attempts();

  /**
   * @param secrets password hashes by person, as the shop's journal tells them
   * @param demoMode whether the invented people of the demo may sign in
   */
  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly secrets: Map<string, string>,
    private readonly clock: Clock,
    readonly demoMode = false,
  ) {}

  async list(on: Queryable = this.database): Promise<Person[]> {
    const rows = await on.query<PersonRow>('SELECT * FROM people ORDER BY lower(name)');
    return rows.map(ofRow).filter((person) => this.counts(person));
  }

  /** True until someone real can keep this shop: the first start asks for an owner. */
  async needsOwner(on: Queryable = this.database): Promise<boolean> {
    return !(await this.list(on)).some(({ active, roles }) => active && roles.includes('owner'));
  }

  async create(person: NewPerson, by: string, demo = false): Promise<Person> {
    return this.add(person, by, demo, () => Promise.resolve());
  }

  /** The first owner; refused as soon as there is one. */
  async createFirstOwner(person: Omit<NewPerson, 'roles'>): Promise<Person> {
    // Looked at before the password is hashed, which takes its time, and again when it is its turn.
    const refuse = async (on: Queryable) => {
      if (!(await this.needsOwner(on)))
        throw new HttpError(409, 'has-owner', 'this shop has an owner already');
    };
    await refuse(this.database);
    return this.add({ ...person, roles: ['owner'] }, person.name, false, refuse);
  }

  private async add(
    { id, name, roles, password }: NewPerson,
    by: string,
    demo: boolean,
    allowed: (on: Queryable) => Promise<void>,
  ): Promise<Person> {
    const passwordHash = await hashPassword(password);
    await this.writer.write(async (turn) => {
      await allowed(turn.db);
      const taken = await turn.db.query('SELECT id FROM people WHERE lower(name) = lower($1)', [name]);
      if (taken.length > 0)
        throw new HttpError(409, 'name-taken', 'somebody here has this name', [
          { path: 'name', message: 'is taken' },
        ]);
      const createdAt = this.clock.now();
      await turn.shop({ kind: 'person', id, name, roles, demo, active: true, createdAt, passwordHash, by });
      turn.done(() => this.secrets.set(id, passwordHash));
    });
    return this.get(id);
  }

  /** Changes roles or whether they may sign in; the last owner stays one. */
  async change(id: string, to: { roles: Role[]; active: boolean }, by: string): Promise<Person> {
    await this.writer.write(async (turn) => {
      const { db } = turn;
      await this.get(id, db);
      await turn.shop({ kind: 'person-change', id, ...to, by });
      if (!to.active) await db.query('DELETE FROM sessions WHERE person_id = $1', [id]);
      const rows = await db.query<PersonRow>('SELECT * FROM people WHERE active');
      if (!rows.map(ofRow).some((one) => this.counts(one) && one.roles.includes('owner')))
        throw new HttpError(409, 'last-owner', 'the last owner stays one; make another person owner first');
    });
    return this.get(id);
  }

  async setPassword(id: string, password: string, by: string): Promise<void> {
    const passwordHash = await hashPassword(password);
    await this.writer.write(async (turn) => {
      await turn.shop({ kind: 'password', id, passwordHash, by });
      await turn.db.query('DELETE FROM sessions WHERE person_id = $1', [id]);
      turn.done(() => this.secrets.set(id, passwordHash));
    });
  }

  /**
   * The person with this name and password.
   *
   * @throws HttpError 401 when they do not belong together, 429 after too many wrong ones
   */
  async identify(name: string, password: string): Promise<Person> {
    const right = this.attempts.take(name);
    const rows = await this.database.query<PersonRow>('SELECT * FROM people WHERE lower(name) = lower($1)', [
      name.trim(),
    ]);
    const row = rows[0];
    const usable = row !== undefined && row.active && this.counts(ofRow(row));
    const known = usable ? (this.secrets.get(row.id) ?? null) : null;
    if (!(await checkPassword(known, password)) || !usable) {
      throw new HttpError(401, 'wrong-password', 'name and password do not belong together', [
        { path: 'password', message: 'does not belong to this name' },
      ]);
    }
    right();
    return ofRow(row);
  }

  /**
   * The second person at an HV gate: another one, who may witness, by their own password.
   *
   * @throws HttpError naming `witness.name` or `witness.password`
   */
  async witness(
    first: Pick<Person, 'id'>,
    { name, password }: { name: string; password: string },
  ): Promise<Person> {
    const second = await this.identify(name, password).catch((error: unknown) => {
      if (!(error instanceof HttpError)) throw error;
      const issues = [{ path: 'witness.password', message: 'does not belong to this name' }];
      throw new HttpError(error.status === 401 ? 422 : error.status, error.code, error.message, issues);
    });
    const refused = (message: string) =>
      new HttpError(422, 'no-witness', `${second.name} ${message}`, [{ path: 'witness.name', message }]);
    if (second.id === first.id) throw refused('records this: a witness is another person');
    if (!mayWitness(second.roles)) throw refused('has neither the role witness nor owner');
    return second;
  }

  async get(id: string, on: Queryable = this.database): Promise<Person> {
    const rows = await on.query<PersonRow>('SELECT * FROM people WHERE id = $1', [id]);
    if (rows[0] === undefined) throw notFound('this person');
    return ofRow(rows[0]);
  }

  /** The demo's people are known to everyone who has read its source: they count in demo mode alone. */
  private counts({ demo }: Person): boolean {
    return !demo || this.demoMode;
  }
}
