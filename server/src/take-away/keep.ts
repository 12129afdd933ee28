/** Daily backups that are kept, then weekly ones, then monthly ones. */
const days = 7;
const weeks = 5;
const months = 12;

/** The day in the name of a backup, YYYY-MM-DD. */
const dayOf = (name: string) => /(\d{4}-\d{2}-\d{2})/.exec(name)?.[1] ?? '';
/** Weeks since a Monday long ago. */
const weekOf = (day: string) => String(Math.floor((Date.parse(day) / 86_400_000 + 3) / 7));

/**
 * Which backups are kept: the newest of each of the last seven days that have one, of five weeks and of twelve months.
 *
 * @param names in any order; each holds its day
 */
export function backupsToKeep(names: readonly string[]): Set<string> {
  const newestFirst = [...names].sort().reverse();
  const keep = new Set<string>();
  const rules: [most: number, of: (day: string) => string][] = [
    [days, (day) => day],
    [weeks, weekOf],
    [months, (day) => day.slice(0, 7)],
  ];
  for (const [most, of] of rules) {
    const seen = new Set<string>();
    for (const name of newestFirst) {
      const period = of(dayOf(name));
      if (seen.has(period)) continue;
      if (seen.size === most) break;
      seen.add(period);
      keep.add(name);
    }
  }
  return keep;
}
