import equal from 'fast-deep-equal';

/**
 * `made`, with every part of it that equals its counterpart in `before` as that very object. For plain data without
 * circles; what is frozen is taken as it is, or as it was.
 */
export function keptWhereEqual<T>(before: unknown, made: T): T {
  if (Object.is(before, made)) return made;
  if (typeof before !== 'object' || typeof made !== 'object' || before === null || made === null) return made;
  if (Object.isFrozen(made)) return equal(before, made) ? (before as T) : made;
  if (Array.isArray(before) !== Array.isArray(made)) return made;
  const keys = Object.keys(made);
  const old = before as Record<string, unknown>;
  const now = made as Record<string, unknown>;
  const was = Object.keys(old);
  let same = was.length === keys.length;
  keys.forEach((key, i) => {
    const kept = keptWhereEqual(old[key], now[key]);
    if (kept !== now[key]) now[key] = kept;
    if (was[i] !== key || !Object.is(kept, old[key])) same = false;
  });
  return same ? (before as T) : made;
}
