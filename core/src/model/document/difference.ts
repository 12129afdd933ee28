/** One place where two designs differ, by dotted path. */
export interface Difference {
  path: string;
  from: unknown;
  to: unknown;
}

/** The leaves in which two plain values differ; lists are compared whole, but rows of fields one by one where there are as many. */
export function differences(from: unknown, to: unknown, path = ''): Difference[] {
  if (Object.is(from, to)) return [];
  if (areRows(from) && areRows(to) && from.length === to.length)
    return from.flatMap((row, i) => differences(row, to[i], `${path}.${i}`));
  if (!isRecord(from) || !isRecord(to)) {
    return JSON.stringify(from) === JSON.stringify(to) ? [] : [{ path, from, to }];
  }
  const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  return keys.flatMap((key) => differences(from[key], to[key], path === '' ? key : `${path}.${key}`));
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

const areRows = (value: unknown): value is Record<string, unknown>[] =>
  Array.isArray(value) && value.every(isRecord);
