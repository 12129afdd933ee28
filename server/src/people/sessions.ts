import { createHash, randomBytes } from 'node:crypto';
import type { Person, Role } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database } from '../database';

/** How long a session holds without being used. */
export const sessionDays = 14;
export const sessionCookie = 'torvek_session';

interface Row {
  id: string;
  name: string;
  roles: string;
  demo: boolean;
  seen_at: string;
}

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** Who is signed in, by the hash of the token in their cookie. */
export class Sessions {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly demoMode = false,
  ) {}

  /** @returns the token for the cookie */
  async begin({ id }: Person): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const now = this.clock.now();
    await this.database.query('DELETE FROM sessions WHERE seen_at < $1', [this.oldest()]);
    await this.database.query('INSERT INTO sessions VALUES ($1, $2, $3, $3)', [hashOf(token), id, now]);
    return token;
  }

  /** The person of a token, or null; a session that is used goes on. */
  async person(token: string | null): Promise<Person | null> {
    if (token === null) return null;
    const rows = await this.database.query<Row>(
      `SELECT people.id, name, roles, demo, seen_at FROM sessions JOIN people ON people.id = person_id
       WHERE token_hash = $1 AND active AND seen_at >= $2`,
      [hashOf(token), this.oldest()],
    );
    const row = rows[0];
    if (row === undefined || (row.demo && !this.demoMode)) return null;
    const now = this.clock.now();
    if (Date.parse(now) - Date.parse(row.seen_at) > 3_600_000)
      await this.database.query('UPDATE sessions SET seen_at = $2 WHERE token_hash = $1', [
        hashOf(token),
        now,
      ]);
    const { id, name, roles, demo } = row;
    return { id, name, roles: JSON.parse(roles) as Role[], demo, active: true };
  }

  async end(token: string): Promise<void> {
    await this.database.query('DELETE FROM sessions WHERE token_hash = $1', [hashOf(token)]);
  }

  /** Signs a person out everywhere. */
  async endAll({ id }: Person): Promise<void> {
    await this.database.query('DELETE FROM sessions WHERE person_id = $1', [id]);
  }

  private oldest(): string {
    return new Date(Date.parse(this.clock.now()) - sessionDays * 86_400_000).toISOString();
  }
}

/**
 * The name of the cookie that a server on this port sets: browsers keep cookies of all ports of a host together, and one server
 * must not sign people out of another. Over TLS the prefix lets no other host and no plain page set it.
 */
export function cookieName(host: string | undefined, secure: boolean): string {
  const port = /:(\d{1,5})$/.exec(host ?? '')?.[1];
  return `${secure ? '__Host-' : ''}${sessionCookie}${port === undefined ? '' : `_${port}`}`;
}

/** The session token in a request's headers; one without a port is of an older server on this host. */
export function tokenOf({ cookie, host }: { cookie?: string; host?: string }): string | null {
  const tokens = new Map(
    (cookie ?? '').split(';').map((part) => {
      const [name = '', ...value] = part.trim().split('=');
      return [name, value.join('=')];
    }),
  );
  for (const name of [cookieName(host, true), cookieName(host, false), sessionCookie]) {
    const token = tokens.get(name);
    if (token !== undefined && token !== '') return token;
  }
  return null;
}
