import { openDoor, type DoorRules } from '@torvek/core/shape';
import { mayDo, unrecordable, type Person, type Role } from '@torvek/core/record';
import type { NextFunction, Request, Response, Router } from 'express';
import { cookieName, sessionCookie, sessionDays, tokenOf } from '../people/sessions';
import { HttpError, invalidInput } from './errors';

export interface Call<Body> {
  params: Record<string, string>;
  query: Record<string, string>;
  body: Body;
  /** Who is signed in; null on public routes without a session. */
  person: Person | null;
  /** The token of their session. */
  token: string | null;
  /** Sets the session cookie, or takes it away. */
  setSession(token: string | null): void;
}

/** One row of the route table. */
export interface Route<Body = unknown> {
  method: 'get' | 'post' | 'patch';
  path: string;
  /** Who may call it; `public` needs no session. */
  role: Role | 'public';
  /** The door of the body; absent where there is none. */
  door?: DoorRules;
  /** The body is bytes of at most this many, not JSON; for routes that take files. */
  rawLimitBytes?: number;
  handle(call: Call<Body>): Promise<unknown> | unknown;
}

/** An answer that is bytes, not JSON. */
export class Download {
  constructor(
    readonly bytes: Uint8Array,
    readonly type: string,
    readonly fileName: string,
    /** Shown in the page instead of offered as a file. */
    readonly inline = false,
  ) {}
}

/** Keeps the type of a route's body while the table holds routes of many kinds. */
export function route<Body = undefined>(one: Route<Body>): Route {
  return one as unknown as Route;
}

/** The person of a call on a route that is not public. */
export function signedIn({ person }: Pick<Call<unknown>, 'person'>): Person {
  if (person === null) throw notSignedIn();
  return person;
}

const notSignedIn = () => new HttpError(401, 'not-signed-in', 'sign in first');

/** Finds out whose session a request carries. */
export interface Doorkeeper {
  person(token: string | null): Promise<Person | null>;
}

/**
 * Whether a request may come in at all: before its body is read, so that strangers cannot send megabytes.
 * Puts the person into `response.locals.person`.
 */
export function admit(one: Pick<Route, 'role'>, doorkeeper: Doorkeeper) {
  return async (request: Request, response: Response, next: NextFunction) => {
    const person = await doorkeeper.person(tokenOf(request.headers));
    if (one.role !== 'public') {
      if (person === null) throw notSignedIn();
      if (!mayDo(person.roles, one.role))
        throw new HttpError(403, 'role-too-low', `this asks for the role ${one.role}`);
    }
    response.locals.person = person;
    next();
  };
}

type Reader = (request: Request, response: Response, next: NextFunction) => void;

/** Mounts the route table: admit, read the body, parse, handle, answer. */
export function mount(
  router: Router,
  routes: readonly Route[],
  doorkeeper: Doorkeeper,
  readers: { json: Reader[]; raw(limitBytes: number): Reader[] },
): void {
  for (const one of routes) {
    const reading = one.rawLimitBytes === undefined ? readers.json : readers.raw(one.rawLimitBytes);
    router[one.method](
      one.path,
      admit(one, doorkeeper),
      ...reading,
      async (request: Request, response: Response) => {
        const call: Call<unknown> = {
          params: request.params as Record<string, string>,
          query: queryOf(request),
          body: request.body,
          person: response.locals.person as Person | null,
          token: tokenOf(request.headers),
          setSession: (token) => setCookie(request, response, token),
        };
        if (one.door !== undefined) {
          const parsed = openDoor(request.body, one.door);
          if (!parsed.ok) throw invalidInput(parsed.issues);
          call.body = parsed.input;
        }
        checkText(call, one.door !== undefined);
        const answer = await one.handle(call);
        if (answer instanceof Download) sendFile(response, answer);
        else response.json(answer);
      },
    );
  }
}

/** What no database and no file name holds is refused before anything is written, wherever it stands. */
function checkText({ params, query, body }: Call<unknown>, throughDoor: boolean): void {
  // What came through no door is bytes, or goes to a calculator, which keeps nothing.
  for (const part of [params, query, throughDoor ? body : null]) {
    const path = unrecordable(part);
    if (path !== null) throw invalidInput([{ path, message: 'holds a character that cannot be recorded' }]);
  }
}

function setCookie({ secure, headers }: Request, response: Response, token: string | null): void {
  const settings = { httpOnly: true, sameSite: 'strict', path: '/', secure } as const;
  const name = cookieName(headers.host, secure);
  if (token === null) for (const one of [name, sessionCookie]) response.clearCookie(one, settings);
  else response.cookie(name, token, { ...settings, maxAge: sessionDays * 86_400_000 });
}

function sendFile(response: Response, { bytes, type, fileName, inline }: Download): void {
  const safeName = fileName.replace(/[^\w.-]+/g, '_');
  response
    .set('Content-Type', type)
    .set('Content-Disposition', `${inline ? 'inline' : 'attachment'}; filename="${safeName}"`)
    // Whatever is in a file, it runs nothing here.
    .set('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox")
    .send(Buffer.from(bytes));
}

function queryOf(request: Request): Record<string, string> {
  return Object.fromEntries(
    Object.entries(request.query).filter((pair): pair is [string, string] => typeof pair[1] === 'string'),
  );
}
