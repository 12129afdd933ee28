import { designFields } from './design';
import type { Field } from './field';

/** The value at a dotted path of a document; undefined where there is none. */
export function valueOf(document: object, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      document,
    );
}

/** Whether a record or a list comes into being with the first that is said in it: things themselves are added. */
function isMadeOnDemand(keys: readonly string[]): boolean {
  let fields: Readonly<Record<string, Field>> = designFields;
  for (const [i, key] of keys.entries()) {
    const inner = fields[key]?.inner;
    if (inner === undefined) return false;
    if (i === keys.length - 1) return true;
    // A body has a bond as soon as something is said of it.
    if (inner.kind === 'map') return key === 'bonds' && i === keys.length - 2;
    if (inner.kind === 'list') return false;
    fields = inner.fields;
  }
  return false;
}

/**
 * Sets a value at a dotted path of a draft; undefined takes the field away.
 *
 * @throws Error when the path leads through something that is not there
 */
export function setAt(draft: object, path: string, value: unknown): void {
  const keys = path.split('.');
  const last = keys.pop()!;
  let holder = draft as Record<string, unknown>;
  for (const [i, key] of keys.entries()) {
    if (holder[key] === undefined && isMadeOnDemand(keys.slice(0, i + 1))) {
      // There is nothing to be taken away.
      if (value === undefined) return;
      holder[key] = {};
    }
    const below = holder[key];
    if (typeof below !== 'object' || below === null) throw new Error(`${path} is not a place in this design`);
    holder = below as Record<string, unknown>;
  }
  if (value === undefined) delete holder[last];
  else holder[last] = value;
}
