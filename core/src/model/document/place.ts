/** The value at a dotted path of a document; undefined where there is none. */
export function valueOf(document: object, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      document,
    );
}

/** Records that come into being with their first field. */
const madeOnDemand = new Set(['pack.balance', 'pack.busbars', 'joints', 'bonds', 'runs', 'hazards', 'zones']);
/** A body has a bond as soon as something is said of it. */
const isMadeOnDemand = (path: string) => madeOnDemand.has(path) || /^bonds\.[^.]+$/.test(path);

/**
 * Sets a value at a dotted path of a draft; undefined takes the field away.
 *
 * @throws Error when the path leads through something that is not there
 */
export function setAt(draft: object, path: string, value: unknown): void {
  const keys = path.split('.');
  const last = keys.pop()!;
  const parent = keys.reduce<unknown>((at, key, i) => {
    const holder = at as Record<string, unknown> | undefined;
    if (holder !== undefined && holder[key] === undefined && isMadeOnDemand(keys.slice(0, i + 1).join('.')))
      holder[key] = {};
    return holder?.[key];
  }, draft);
  if (typeof parent !== 'object' || parent === null) throw new Error(`${path} is not a place in this design`);
  const holder = parent as Record<string, unknown>;
  if (value === undefined) delete holder[last];
  else holder[last] = value;
}
