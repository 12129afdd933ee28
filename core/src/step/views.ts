import { deepest, hasFields, keysOf, placeUnder, type Place } from './places';

/** Notes that a place was read. */
export type Note = (place: Place) => void;

interface Kept {
  raw: object;
  view: object;
}

/**
 * Views of a design that note each field when it is read. A view is for reading alone and stays inside the step that
 * reads: an output takes values, never a view of where they came from. Equal objects keep their view from one design
 * to the next.
 */
export class Views {
  private readonly kept = new Map<Place, Kept>();

  constructor(private readonly note: Note) {}

  /** What is at a place: itself when it is a value, a list, or as deep as places go; otherwise a view of it. */
  of(raw: unknown, place: Place, depth: number): unknown {
    if (depth >= deepest || !hasFields(raw)) return raw;
    const kept = this.kept.get(place);
    if (kept?.raw === raw) return kept.view;
    const view = this.make(raw, place, depth);
    this.kept.set(place, { raw, view });
    return view;
  }

  private make(raw: Readonly<Record<string, unknown>>, place: Place, depth: number): object {
    const read = (key: string) => {
      const at = placeUnder(place, key);
      this.note(at);
      return this.of(raw[key], at, depth + 1);
    };
    const list = keysOf(place);
    // The target is empty, so that a frozen design does not bind what the view may show.
    return new Proxy<object>(
      {},
      {
        get: (_target, key) =>
          typeof key === 'string' && (Object.hasOwn(raw, key) || !(key in raw))
            ? read(key)
            : (Reflect.get(raw, key) as unknown),
        has: (_target, key) => {
          if (typeof key === 'string') this.note(placeUnder(place, key));
          return key in raw;
        },
        ownKeys: () => {
          this.note(list);
          return Reflect.ownKeys(raw);
        },
        getOwnPropertyDescriptor: (_target, key) => {
          if (typeof key !== 'string') return undefined;
          const value = read(key);
          return Object.hasOwn(raw, key)
            ? { value, enumerable: true, configurable: true, writable: true }
            : undefined;
        },
        set: () => false,
        deleteProperty: () => false,
        defineProperty: () => false,
      },
    );
  }
}
