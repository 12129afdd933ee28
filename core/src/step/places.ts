import equal from 'fast-deep-equal';

/** A place of the design: keys from its root, at most `deepest` of them; what lies below is one value. */
export type Place = string;

/** Field of an item of a list: `circuits`, its id, `lengthM`. What lies below is read as one value. */
export const deepest = 3;

const mark = '\u0001';

export const placeUnder = (place: Place, key: string): Place => (place === '' ? key : place + mark + key);

/** Which keys an object has, in their order: moves when one comes, goes or changes its place. */
export const keysOf = (place: Place): Place => `${place}${mark}*`;

/** What has fields that can be read one by one. */
export const hasFields = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Every place at which two trees differ. Branches that are the same object are passed over, so that the difference of
 * a tree and what an edit made of it costs what was edited.
 */
export function changedPlaces(was: unknown, is: unknown): Set<Place> {
  const changed = new Set<Place>();
  compare(was, is, '', 0, changed);
  return changed;
}

function compare(was: unknown, is: unknown, place: Place, depth: number, changed: Set<Place>): void {
  if (was === is) return;
  if (depth === deepest || !hasFields(was) || !hasFields(is)) {
    if (depth === deepest ? equal(was, is) : !hasFields(was) && !hasFields(is) && equal(was, is)) return;
    changed.add(place);
    // What was read below is no longer there, or is there now.
    if (depth < deepest) for (const side of [was, is]) everyPlace(side, place, depth, changed);
    return;
  }
  const before = Object.keys(was);
  const after = Object.keys(is);
  if (before.length !== after.length || before.some((key, i) => key !== after[i])) changed.add(keysOf(place));
  for (const key of before) compare(was[key], is[key], placeUnder(place, key), depth + 1, changed);
  for (const key of after) {
    if (!Object.hasOwn(was, key)) compare(undefined, is[key], placeUnder(place, key), depth + 1, changed);
  }
}

function everyPlace(value: unknown, place: Place, depth: number, into: Set<Place>): void {
  if (!hasFields(value) || depth === deepest) return;
  into.add(keysOf(place));
  for (const [key, below] of Object.entries(value)) {
    into.add(placeUnder(place, key));
    everyPlace(below, placeUnder(place, key), depth + 1, into);
  }
}
