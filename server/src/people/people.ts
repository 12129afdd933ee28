import { mayWitness, type Person, type Role } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError, notFound } from '../http/errors';
import { Attempts } from './attempts';
import { checkPassword, hashPassword } from './passwords';

interface PersonRow {
  id: string;
  name: string;
  roles: string;
  password_hash: string;
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

  /** @param demoMode whether the invented people of the demo may sign in */
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    readonly demoMode = false,
  ) {}

  async list(): Promise<Person[]> {
    const rows = await this.database.query<PersonRow>('SELECT * FROM people ORDER BY lower(name)');
    return rows.map(ofRow).filter((person) => this.counts(person));
  }

  /** How many there are, those of the demo with them. */
  async count(): Promise<number> {
    const [row] = await this.database.query<{ count: number | string }>(
      'SELECT count(*) AS count FROM people',
    );
    return Number(row?.count ?? 0);
  }

  /** True until someone real can keep this shop: the first start asks for an owner. */
  async needsOwner(): Promise<boolean> {
    return !(await this.list()).some(({ active, roles }) => active && roles.includes('owner'));
  }

  async create({ id, name, roles, password }: NewPerson, demo = false): Promise<Person> {
    const taken = await this.database.query('SELECT id FROM people WHERE lower(name) = lower($1)', [name]);
    if (taken.length > 0)
      throw new HttpError(409, 'name-taken', 'somebody here has this name', [
        { path: 'name', message: 'is taken' },
      ]);
    await this.database.query(
      `INSERT INTO people (id, name, roles, password_hash, demo, created_at) VALUES ($1, $2, $3, $4, $5, $6)`,
      [id, name, JSON.stringify(roles), await hashPassword(password), demo, this.clock.now()],
    );
    return this.get(id);
  }

  /** The first owner; refused as soon as there is one. */
  async createFirstOwner(person: Omit<NewPerson, 'roles'>): Promise<Person> {
    if (!(await this.needsOwner())) throw new HttpError(409, 'has-owner', 'this shop has an owner already');
    return this.create({ ...person, roles: ['owner'] });
  }

  /** Changes roles or whether they may sign in; the last owner stays one. */
  async change(id: string, to: { roles: Role[]; active: boolean }): Promise<Person> {
    await this.database.transaction(async (db) => {
      await this.get(id, db);
      await db.query('UPDATE people SET roles = $2, active = $3 WHERE id = $1', [
        id,
        JSON.stringify(to.roles),
        to.active,
      ]);
      if (!to.active) await db.query('DELETE FROM sessions WHERE person_id = $1', [id]);
      const rows = await db.query<PersonRow>('SELECT * FROM people WHERE active');
      if (!rows.map(ofRow).some((one) => this.counts(one) && one.roles.includes('owner')))
        throw new HttpError(409, 'last-owner', 'the last owner stays one; make another person owner first');
    });
    return this.get(id);
  }

  async setPassword(id: string, password: string): Promise<void> {
    await this.database.query('UPDATE people SET password_hash = $2 WHERE id = $1', [
      id,
      await hashPassword(password),
    ]);
    await this.database.query('DELETE FROM sessions WHERE person_id = $1', [id]);
  }

  /**
   * The person with this name and password.
   *
   * @throws HttpError 401 when they do not belong together, 429 after too many wrong ones
   */
  async identify(name: string, password: string, on: Queryable = this.database): Promise<Person> {
    const right = this.attempts.take(name);
    const rows = await on.query<PersonRow>('SELECT * FROM people WHERE lower(name) = lower($1)', [
      name.trim(),
    ]);
    const row = rows[0];
    const usable = row !== undefined && row.active && this.counts(ofRow(row));
    if (!(await checkPassword(usable ? row.password_hash : null, password)) || !usable) {
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
    on: Queryable,
  ): Promise<Person> {
    const second = await this.identify(name, password, on).catch((error: unknown) => {
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
