import { list, oneOf, record, text } from '@torvek/core/shape';
import { roles, shortestPassword, type Person, type Role } from '@torvek/core/record';
import { HttpError } from '../http/errors';
import { route, signedIn, type Route } from '../http/route';
import type { People } from './people';
import type { ShopRules } from './secrets';
import type { Sessions } from './sessions';

const password = text(200, { min: shortestPassword });
/** The code of a second factor, or a recovery code. */
const code = text.optional(40, { min: 0 });
/** A name as it stands in the record: letters, no blanks around it, nothing that hides. */
function checkName({ name }: { name: string }, issue: (path: string, message: string) => void): void {
  if (name !== name.trim() || !/^[\p{L}\p{N}][\p{L}\p{M}\p{N} .,'’()-]*$/u.test(name) || /\s\s/.test(name))
    issue('name', 'may hold letters, digits, single blanks and . , ’ ( ) -');
}

const someRoles = list(oneOf([...roles]), { minRows: 1, maxRows: roles.length });

/** Signing in and out, the first owner, the people of the shop. */
export function peopleRoutes(people: People, sessions: Sessions): Route[] {
  /** Asks whoever is signed in once more: a page left open changes no account. */
  const itIsMe = async (me: Person, { current, code: given }: { current: string; code?: string }) => {
    await people.identify(me.name, current, given).catch((error: unknown) => {
      if (!(error instanceof HttpError) || error.status !== 401) throw error;
      if (error.issues[0]?.path === 'code') throw new HttpError(422, error.code, error.message, error.issues);
      throw new HttpError(422, 'wrong-password', 'this is not your password', [
        { path: 'current', message: 'is not your password' },
      ]);
    });
  };
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
    route<{ name: string; password: string; code?: string }>({
      method: 'post',
      path: '/session',
      role: 'public',
      door: { schema: record({ name: text(80), password: text(200), code }) },
      handle: async ({ body, setSession }) => {
        const person = await people.identify(body.name, body.password, body.code);
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
    route<{ current: string; next: string; code?: string }>({
      method: 'post',
      path: '/password',
      role: 'witness',
      door: { schema: record({ current: text(200), next: password, code }) },
      handle: async (call) => {
        const me = signedIn(call);
        await itIsMe(me, call.body);
        await people.setPassword(me.id, call.body.next, me.name);
        call.setSession(await sessions.begin(me));
        return { person: me };
      },
    }),
    route({
      method: 'get',
      path: '/second',
      role: 'witness',
      handle: (call) => people.secondOf(signedIn(call).id),
    }),
    route<{ current: string; code?: string }>({
      method: 'post',
      path: '/second',
      role: 'witness',
      door: { schema: record({ current: text(200), code }) },
      handle: async (call) => {
        const me = signedIn(call);
        if (me.demo)
          throw new HttpError(
            403,
            'not-in-demo',
            'the demo’s people are everyone’s: they have no second factor',
          );
        await itIsMe(me, call.body);
        return people.beginSecond(me);
      },
    }),
    route<{ code: string }>({
      method: 'post',
      path: '/second/confirm',
      role: 'witness',
      door: { schema: record({ code: text(40) }) },
      handle: (call) => people.confirmSecond(signedIn(call), call.body.code),
    }),
    route<{ current: string; code?: string }>({
      method: 'post',
      path: '/second/end',
      role: 'witness',
      door: { schema: record({ current: text(200), code }) },
      handle: async (call) => {
        const me = signedIn(call);
        await itIsMe(me, call.body);
        await people.setSecond(me.id, null, me.name);
        return people.secondOf(me.id);
      },
    }),
    route({
      method: 'get',
      path: '/people',
      role: 'witness',
      handle: async () =>
        (await people.list()).map((person) => ({ ...person, second: people.secondOf(person.id).on })),
    }),
    route({ method: 'get', path: '/rules', role: 'witness', handle: () => people.rules }),
    route<Partial<ShopRules>>({
      method: 'post',
      path: '/rules',
      role: 'owner',
      door: {
        schema: record({
          witnessesNeedSecond: oneOf.optional([true, false]),
          labelAddress: text.optional(200, { min: 0 }),
        }),
        cross({ labelAddress = '' }: Partial<ShopRules>, issue) {
          if (labelAddress !== '' && !isAddress(labelAddress))
            issue('labelAddress', 'must be an address such as https://torvek.example, without a path');
        },
      },
      handle: ({ body, ...call }) => {
        const { labelAddress } = body;
        const rules =
          labelAddress === undefined ? body : { ...body, labelAddress: labelAddress.replace(/\/$/, '') };
        return people.setRules(rules, signedIn(call).name);
      },
    }),
    route({
      method: 'post',
      path: '/people/:person/second/end',
      role: 'owner',
      handle: async (call) => {
        await people.setSecond(call.params.person!, null, signedIn(call).name);
        return people.secondOf(call.params.person!);
      },
    }),
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

/** Scheme, host and port: what stands behind it is Torvek’s own. */
function isAddress(text: string): boolean {
  const url = URL.canParse(text) ? new URL(text) : null;
  return url !== null && /^https?:$/.test(url.protocol) && text.replace(/\/$/, '') === url.origin;
}
