import equal from 'fast-deep-equal';

/** Field of an item of a list: `circuits`, its id, `lengthM`. What lies below is read as one value. */
export const deepest = 3;

/** What has fields that can be read one by one. */
export const hasFields = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * A place of the design that somebody read, with who did. Places make a tree beside the design, at most `deepest` keys
 * deep; where nobody ever read there is none.
 */
export class Place<Reader> {
  readonly readers = new Set<Reader>();
  /** All that is here and below, read as one value. */
  private wholeOf: Place<Reader> | null = null;
  /** Which keys there are, and in which order: read as something of its own. */
  private ownKeys: Place<Reader> | null = null;
  private below: Map<string, Place<Reader>> | null = null;
  /** What is shown of the object that is here. */
  shown: { of: object; as: object } | null = null;
  /** Who noted it last: most fields are read several times in a row by the same. */
  mark = 0;

  constructor(readonly depth = 0) {}

  at(key: string): Place<Reader> {
    this.below ??= new Map();
    let place = this.below.get(key);
    if (place === undefined) {
      place = new Place(this.depth + 1);
      this.below.set(key, place);
    }
    return place;
  }

  get whole(): Place<Reader> {
    return (this.wholeOf ??= new Place(deepest));
  }

  get keys(): Place<Reader> {
    return (this.ownKeys ??= new Place(deepest));
  }

  /**
   * Adds whoever read where two trees differ. Branches that are the same object are passed over, so that the difference
   * of a tree and what an edit made of it costs what was edited.
   */
  changed(was: unknown, is: unknown, into: Set<Reader>): void {
    if (was === is) return;
    if (this.depth === deepest || !hasFields(was) || !hasFields(is)) {
      if (this.depth === deepest || !(hasFields(was) || hasFields(is))) {
        if (equal(was, is)) return;
      }
      this.everyReader(into);
      return;
    }
    if (this.wholeOf !== null && !equal(was, is)) this.wholeOf.everyReader(into);
    if (this.ownKeys !== null && !sameKeys(was, is)) this.ownKeys.everyReader(into);
    for (const [key, place] of this.below ?? []) place.changed(own(was, key), own(is, key), into);
  }

  /**
   * The same places, read by others; what is shown of them is made anew.
   *
   * @param made takes up which became which
   */
  copy(readerOf: (reader: Reader) => Reader, made: Map<Place<Reader>, Place<Reader>>): Place<Reader> {
    const copy = new Place<Reader>(this.depth);
    made.set(this, copy);
    for (const reader of this.readers) copy.readers.add(readerOf(reader));
    copy.wholeOf = this.wholeOf?.copy(readerOf, made) ?? null;
    copy.ownKeys = this.ownKeys?.copy(readerOf, made) ?? null;
    for (const [key, place] of this.below ?? []) {
      copy.below ??= new Map();
      copy.below.set(key, place.copy(readerOf, made));
    }
    return copy;
  }

  /** What was read below is no longer there, or is there now. */
  private everyReader(into: Set<Reader>): void {
    for (const reader of this.readers) into.add(reader);
    this.wholeOf?.everyReader(into);
    this.ownKeys?.everyReader(into);
    for (const place of this.below?.values() ?? []) place.everyReader(into);
  }
}

const own = (object: Readonly<Record<string, unknown>>, key: string) =>
  Object.hasOwn(object, key) ? object[key] : undefined;

function sameKeys(was: object, is: object): boolean {
  const [before, after] = [Object.keys(was), Object.keys(is)];
  return before.length === after.length && before.every((key, i) => key === after[i]);
}
