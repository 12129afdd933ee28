import { deepest, hasFields, type Place } from './places';

/** Hears of every place that is read. */
export interface Noter {
  note(place: Place<unknown>): void;
}

/** What a view is of. */
interface Shown {
  raw: Readonly<Record<string, unknown>>;
  place: Place<unknown>;
  noter: Noter;
}

/**
 * A view of what is at a place, that notes each field when it is read: itself when it is a value, a list, or as deep as
 * places go. A view is for reading alone and stays inside the step that reads: an output takes values, never a view of
 * where they came from. An object keeps its view from one design to the next.
 */
export function viewOf(raw: unknown, place: Place<unknown>, noter: Noter): unknown {
  if (place.depth >= deepest || !hasFields(raw)) return raw;
  if (place.shown?.of === raw) return place.shown.as;
  const as = new Proxy<Shown>({ raw, place, noter }, handler);
  place.shown = { of: raw, as };
  return as;
}

function field({ raw, place, noter }: Shown, key: string): unknown {
  const at = place.at(key);
  noter.note(at);
  const value = raw[key];
  return typeof value === 'object' ? viewOf(value, at, noter) : value;
}

/** One for all views. What is shown has nothing to do with the target's own fields. */
const handler: ProxyHandler<Shown> = {
  get: (shown, key) =>
    typeof key === 'string' && (Object.hasOwn(shown.raw, key) || !(key in shown.raw))
      ? field(shown, key)
      : (Reflect.get(shown.raw, key) as unknown),
  has: (shown, key) => {
    if (typeof key === 'string') field(shown, key);
    return key in shown.raw;
  },
  ownKeys: ({ raw, place, noter }) => {
    noter.note(place.keys);
    return Reflect.ownKeys(raw);
  },
  getOwnPropertyDescriptor: (shown, key) => {
    if (typeof key !== 'string') return undefined;
    const value = field(shown, key);
    return Object.hasOwn(shown.raw, key)
      ? { value, enumerable: true, configurable: true, writable: true }
      : undefined;
  },
  set: () => false,
  deleteProperty: () => false,
  defineProperty: () => false,
};
