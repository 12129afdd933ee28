import { list, oneOf, record, text } from '@torvek/core/calculator';
import { roles, shortestPassword, type Role } from '@torvek/core/record';
import { HttpError } from '../http/errors';
import { route, signedIn, type Route } from '../http/route';
import type { People } from './people';
import type { Sessions } from './sessions';

const password = text(200, { min: shortestPassword });
/** A name as it stands in the record: letters, no blanks around it, nothing that hides. */
function checkName({ name }: { name: string }, issue: (path: string, message: string) => void): void {
  if (name !== name.trim() || !/^[\p{L}\p{N}][\p{L}\p{M}\p{N} .,'’()-]*$/u.test(name) || /\s\s/.test(name))
    issue('name', 'may hold letters, digits, single blanks and . , ’ ( ) -');
}

const someRoles = list(oneOf([...roles]), { minRows: 1, maxRows: roles.length });

/** Signing in and out, the first owner, the people of the shop. */
export function peopleRoutes(people: People, sessions: Sessions): Route[] {
  return [
    route({
      method: 'get',
      path: '/session',
      role: 'public',
      handle: async ({ person }) => ({
        person,
        needsOwner: person === null && (await people.needsOwner()),
        demoPeople:
          person === null && people.demoMode
            ? (await people.list()).filter(({ demo, active }) => demo && active)
            : [],
      }),
    }),
    route<{ name: string; password: string }>({
      method: 'post',
      path: '/session',
      role: 'public',
      door: { schema: record({ name: text(80), password: text(200) }) },
      handle: async ({ body, setSession }) => {
        const person = await people.identify(body.name, body.password);
        setSession(await sessions.begin(person));
        return { person };
      },
    }),
    route<{ person: string }>({
      method: 'post',
      path: '/session/demo',
      role: 'public',
      door: { schema: record({ person: text(80) }) },
      handle: async ({ body, setSession }) => {
        const person = (await people.list()).find(
          ({ id, demo, active }) => id === body.person && demo && active,
        );
        if (!people.demoMode || person === undefined)
          throw new HttpError(403, 'not-in-demo', 'only the demo’s people sign in with one click');
        setSession(await sessions.begin(person));
        return { person };
      },
    }),
    route<{ id: string; name: string; password: string }>({
      method: 'post',
      path: '/owner',
      role: 'public',
      door: { schema: record({ id: text(80), name: text(80), password }), cross: checkName },
      handle: async ({ body, setSession }) => {
        const person = await people.createFirstOwner(body);
        setSession(await sessions.begin(person));
        return { person };
      },
    }),
    route({
      method: 'post',
      path: '/session/end',
      role: 'witness',
      handle: async ({ token, setSession }) => {
        if (token !== null) await sessions.end(token);
        setSession(null);
        return { person: null };
      },
    }),
    route({
      method: 'post',
      path: '/session/end-everywhere',
      role: 'witness',
      handle: async (call) => {
        await sessions.endAll(signedIn(call));
        call.setSession(null);
        return { person: null };
      },
    }),
    route<{ current: string; next: string }>({
      method: 'post',
      path: '/password',
      role: 'witness',
      door: { schema: record({ current: text(200), next: password }) },
      handle: async (call) => {
        const me = signedIn(call);
        await people.identify(me.name, call.body.current).catch((error: unknown) => {
          if (!(error instanceof HttpError) || error.status !== 401) throw error;
          throw new HttpError(422, 'wrong-password', 'this is not your password', [
            { path: 'current', message: 'is not your password' },
          ]);
        });
        await people.setPassword(me.id, call.body.next, me.name);
        call.setSession(await sessions.begin(me));
        return { person: me };
      },
    }),
    route({ method: 'get', path: '/people', role: 'witness', handle: () => people.list() }),
    route<{ id: string; name: string; roles: Role[]; password: string }>({
      method: 'post',
      path: '/people',
      role: 'owner',
      door: {
        schema: record({ id: text(80), name: text(80), roles: someRoles, password }),
        cross: checkName,
      },
      handle: (call) => people.create(call.body, signedIn(call).name),
    }),
    route<{ roles: Role[]; active: boolean }>({
      method: 'patch',
      path: '/people/:person',
      role: 'owner',
      door: { schema: record({ roles: someRoles, active: oneOf([true, false]) }) },
      handle: (call) => people.change(call.params.person!, call.body, signedIn(call).name),
    }),
    route<{ password: string }>({
      method: 'post',
      path: '/people/:person/password',
      role: 'owner',
      door: { schema: record({ password }) },
      handle: async (call) => {
        const person = await people.get(call.params.person!);
        await people.setPassword(person.id, call.body.password, signedIn(call).name);
        return person;
      },
    }),
  ];
}
