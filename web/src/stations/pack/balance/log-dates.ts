/** Order of day and month where dates are written with the year last. */
export type DateOrder = 'day first' | 'month first';
export const looksTime = (text: string) => /^\d{1,2}:\d{2}(:\d{2}([.,]\d+)?)?$/.test(text);
export const looksDate = (text: string) => /^\d{1,4}[-./]\d{1,2}[-./]\d{1,4}\.?$/.test(text);
export const looksBoth = (text: string) => /^\d{1,4}[-./]\d{1,2}[-./]\d{1,4}[ T,]+\d{1,2}:\d{2}/.test(text);

/** The numbers of a date: year first, or last with day and month in either order. */
export function dateParts(text: string): { a: number; b: number; c: number; yearLast: boolean } | null {
  const found = /^(\d{1,4})[-./](\d{1,2})[-./](\d{1,4})/.exec(text);
  if (found === null) return null;
  const [a, b, c] = found.slice(1).map(Number) as [number, number, number];
  const yearLast = found[1]!.length < 3;
  return yearLast ? { a, b, c: c < 100 ? 2000 + c : c, yearLast } : { a, b, c, yearLast };
}

/** The year, month and day of a text; null: it is no date in this order. */
export function dayOf(text: string, order: DateOrder): [year: number, month: number, day: number] | null {
  const parts = dateParts(text);
  if (parts === null) return null;
  const { a, b, c, yearLast } = parts;
  const [year, month, day] = !yearLast ? [a, b, c] : order === 'day first' ? [c, b, a] : [c, a, b];
  const real = new Date(Date.UTC(year!, month! - 1, day));
  return real.getUTCMonth() === month! - 1 && real.getUTCDate() === day ? [year!, month!, day!] : null;
}

export function clockOf(text: string): [hour: number, minute: number, second: number] | null {
  const found = /(?:^|[ T,])(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*(am|pm)?(?:$|[ Z+])/i.exec(text);
  if (found === null) return null;
  const half = found[4]?.toLowerCase();
  const hour = (Number(found[1]) % (half === undefined ? 24 : 12)) + (half === 'pm' ? 12 : 0);
  const [minute, second] = [Number(found[2]), Number((found[3] ?? '0').replace(',', '.'))];
  return Number(found[1]) > 24 || minute > 59 || second >= 60 ? null : [hour, minute, second];
}
