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
    // Made once: a field is read by many steps, and again after each edit elsewhere.
    const fields = new Map<string, { at: Place; shown: unknown }>();
    const field = (key: string) => {
      let known = fields.get(key);
      if (known === undefined) {
        const at = placeUnder(place, key);
        known = { at, shown: this.of(raw[key], at, depth + 1) };
        fields.set(key, known);
      }
      this.note(known.at);
      return known.shown;
    };
    const list = keysOf(place);
    // The target is empty, so that a frozen design does not bind what the view may show.
    return new Proxy<object>(
      {},
      {
        get: (_target, key) =>
          typeof key === 'string' && (Object.hasOwn(raw, key) || !(key in raw))
            ? field(key)
            : (Reflect.get(raw, key) as unknown),
        has: (_target, key) => {
          if (typeof key === 'string') field(key);
          return key in raw;
        },
        ownKeys: () => {
          this.note(list);
          return Reflect.ownKeys(raw);
        },
        getOwnPropertyDescriptor: (_target, key) => {
          if (typeof key !== 'string') return undefined;
          const value = field(key);
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
