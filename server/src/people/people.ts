import { mayWitness, type Person, type Role } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import type { Writer } from '../journal/writer';
import { HttpError, invalidInput, notFound } from '../http/errors';
import { Attempts } from './attempts';
import { checkPassword, hashPassword } from './passwords';
import { Codes, newRecoveryCodes, newSecond } from './second-factor';
import type { Second, Secrets, ShopRules } from './secrets';

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

/** Who confirmed a gate. */
export interface Witness {
  name: string;
  /** Somebody else set their password last; null: they did. */
  passwordBy: { by: string; at: string } | null;
}

const refusedCode = (code: string, message: string) =>
  new HttpError(401, code, `the code ${message}`, [{ path: 'code', message }]);

/** A secret that was shown and not confirmed counts no longer after a quarter of an hour. */
const setUpWithinMs = 15 * 60_000;

/** The people of the shop. A name is for good: the record carries it. */
export class People {
  private readonly attempts = new Attempts();
  private readonly codes = new Codes();
  /** Second factors that are being set up, by person. */
  private readonly begun = new Map<string, { secret: string; atMs: number }>();

  /**
   * @param secrets passwords and second factors, as the shop's journal tells them
   * @param demoMode whether the invented people of the demo may sign in
   */
  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly secrets: Secrets,
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
      turn.done(() =>
        this.secrets.people.set(id, { passwordHash, passwordBy: by, passwordAt: createdAt, second: null }),
      );
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
      const passwordAt = this.clock.now();
      turn.done(() => {
        const second = this.secrets.people.get(id)?.second ?? null;
        this.secrets.people.set(id, { passwordHash, passwordBy: by, passwordAt, second });
      });
    });
  }

  /**
   * The person with this name and password, and with the code of their second factor when they have one.
   *
   * @throws HttpError 401 when they do not belong together or the code is missing, 429 after too many wrong ones
   */
  async identify(name: string, password: string, code = ''): Promise<Person> {
    const attempt = this.attempts.take(name);
    const rows = await this.database.query<PersonRow>('SELECT * FROM people WHERE lower(name) = lower($1)', [
      name.trim(),
    ]);
    const row = rows[0];
    const usable = row !== undefined && row.active && this.counts(ofRow(row));
    const known = usable ? (this.secrets.people.get(row.id) ?? null) : null;
    if (!(await checkPassword(known?.passwordHash ?? null, password)) || !usable) {
      throw new HttpError(401, 'wrong-password', 'name and password do not belong together', [
        { path: 'password', message: 'does not belong to this name' },
      ]);
    }
    const second = this.secrets.people.get(row.id)?.second ?? null;
    if (second !== null) {
      if (code.trim() === '') {
        attempt.half();
        throw refusedCode('code-needed', 'is needed: this account has a second factor');
      }
      await this.takeCode(row.id, second, code);
    }
    attempt.right();
    return ofRow(row);
  }

  /** A code counts once; a recovery code is used up. */
  private async takeCode(id: string, second: Second, code: string): Promise<void> {
    const checked = this.codes.check(id, second, code);
    if (checked.as === 'wrong') throw refusedCode('wrong-code', 'does not belong to this account');
    if (checked.as === 'used') throw refusedCode('used-code', 'was used already: wait for the next one');
    if (checked.as !== 'recovery') return;
    const { hash } = checked;
    await this.writer.write(async (turn) => {
      const left = this.secrets.people.get(id)?.second;
      if (!left?.recovery.includes(hash)) throw refusedCode('used-code', 'was used already');
      await turn.shop({ kind: 'recovery-used', id, hash });
      // Within the turn: the same code sent twice at once counts once.
      left.recovery = left.recovery.filter((one) => one !== hash);
      turn.undone(() => left.recovery.push(hash));
    });
  }

  /** Whether a person has a second factor, and how many recovery codes are left. */
  secondOf(id: string): { on: boolean; recoveryLeft: number } {
    const second = this.secrets.people.get(id)?.second ?? null;
    return { on: second !== null, recoveryLeft: second?.recovery.length ?? 0 };
  }

  /** Begins to set a second factor up; it counts when a code of it was shown. */
  beginSecond({ id, name }: Person): { secret: string; uri: string } {
    const begun = newSecond(name);
    this.begun.set(id, { secret: begun.secret, atMs: Date.parse(this.clock.now()) });
    return begun;
  }

  /** @returns the recovery codes, which are shown this once */
  async confirmSecond({ id, name }: Person, code: string): Promise<{ codes: string[] }> {
    const begun = this.begun.get(id);
    if (begun === undefined || Date.parse(this.clock.now()) - begun.atMs > setUpWithinMs) {
      this.begun.delete(id);
      throw new HttpError(409, 'not-begun', 'set the second factor up anew: this page is an old one');
    }
    const { secret } = begun;
    const { codes, hashes } = newRecoveryCodes();
    const second: Second = { secret, recovery: hashes };
    if (this.codes.check(id, { secret, recovery: [] }, code).as !== 'code')
      throw invalidInput([{ path: 'code', message: 'is not the one that the authenticator shows now' }]);
    this.begun.delete(id);
    await this.setSecond(id, second, name);
    return { codes };
  }

  /** Sets a second factor, or takes it away. */
  async setSecond(id: string, second: Second | null, by: string): Promise<void> {
    await this.writer.write(async (turn) => {
      await this.get(id, turn.db);
      await turn.shop({ kind: 'second', id, second: second === null ? null : { ...second }, by });
      turn.done(() => {
        const secret = this.secrets.people.get(id);
        if (secret !== undefined) secret.second = second;
      });
    });
  }

  get rules(): ShopRules {
    return { ...this.secrets.rules };
  }

  async setRules(rules: Partial<ShopRules>, by: string): Promise<ShopRules> {
    await this.writer.write(async (turn) => {
      await turn.shop({ kind: 'rules', ...rules, by });
      turn.done(() => Object.assign(this.secrets.rules, rules));
    });
    return this.rules;
  }

  /**
   * The second person at an HV gate: another one, who may witness, by their own password and code. Says too when somebody else
   * set that password: the word is only as good as it.
   *
   * @throws HttpError naming `witness.name`, `witness.password` or `witness.code`
   */
  async witness(
    first: Pick<Person, 'id'>,
    { name, password, code }: { name: string; password: string; code?: string },
  ): Promise<Witness> {
    const second = await this.identify(name, password, code).catch((error: unknown) => {
      if (!(error instanceof HttpError)) throw error;
      const about = error.issues[0]?.path === 'code' ? error.issues[0] : null;
      const issues = [
        about === null
          ? { path: 'witness.password', message: 'does not belong to this name' }
          : { path: 'witness.code', message: about.message },
      ];
      throw new HttpError(error.status === 401 ? 422 : error.status, error.code, error.message, issues);
    });
    const refused = (message: string) =>
      new HttpError(422, 'no-witness', `${second.name} ${message}`, [{ path: 'witness.name', message }]);
    if (second.id === first.id) throw refused('records this: a witness is another person');
    if (!mayWitness(second.roles)) throw refused('has neither the role witness nor owner');
    if (this.rules.witnessesNeedSecond && !this.secondOf(second.id).on)
      throw refused('has no second factor, which this shop asks of witnesses');
    const secret = this.secrets.people.get(second.id);
    const own = secret === undefined || secret.passwordBy === second.name || second.demo;
    return { name: second.name, passwordBy: own ? null : { by: secret.passwordBy, at: secret.passwordAt } };
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
