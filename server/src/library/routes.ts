import { list, oneOf, record, text } from '@torvek/core/shape';
import { checkPart } from '@torvek/core/library';
import { partSchema, type Part } from '@torvek/core/parts';
import { route, signedIn, type Route } from '../http/route';
import type { LibraryParts } from './parts';

const part = partSchema();

/** What a part's own door says of it, under the path at which it came. */
function crossPart(value: Part, path: string, issue: (path: string, message: string) => void): void {
  const checked = checkPart(value);
  if (!checked.ok) for (const one of checked.issues) issue(`${path}.${one.path}`, one.message);
}

/** The shop's library of parts. */
export function libraryRoutes(parts: LibraryParts): Route[] {
  return [
    route({ method: 'get', path: '/library', role: 'witness', handle: () => parts.shelf() }),
    route({ method: 'get', path: '/library/uses', role: 'witness', handle: () => parts.uses() }),
    route<{ part: Part; note?: string }>({
      method: 'post',
      path: '/library',
      role: 'designer',
      door: {
        schema: record({ part, note: text.optional(400) }),
        cross: (input: { part: Part }, issue) => crossPart(input.part, 'part', issue),
      },
      handle: (call) => parts.save(call.body.part, call.body.note ?? '', signedIn(call).name),
    }),
    route<{ parts: Part[]; note?: string }>({
      method: 'post',
      path: '/library/take-in',
      role: 'designer',
      door: {
        schema: record({ parts: list(part, { minRows: 1, maxRows: 2000 }), note: text.optional(400) }),
        cross: (input: { parts: Part[] }, issue) =>
          input.parts.forEach((one, i) => crossPart(one, `parts.${i}`, issue)),
      },
      handle: async (call) => {
        const { body } = call;
        const arrivals = await parts.takeIn(body.parts, body.note ?? '', signedIn(call).name);
        return { arrivals, shelf: await parts.shelf() };
      },
    }),
    route<{ retired: boolean }>({
      method: 'patch',
      path: '/library/:part',
      role: 'designer',
      door: { schema: record({ retired: oneOf([true, false]) }) },
      handle: (call) => parts.retire(call.params.part!, call.body.retired, signedIn(call).name),
    }),
  ];
}
