/** Making one takes longer than a hundred dates do. */
const formats = new Map<string, Intl.DateTimeFormat>();
function formatOf(options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = JSON.stringify(options);
  const made = formats.get(key) ?? new Intl.DateTimeFormat('en-GB', options);
  formats.set(key, made);
  return made;
}
/** What is no date says so, as a date does by itself. */
const written = (instant: string | number | Date, options: Intl.DateTimeFormatOptions): string => {
  const date = new Date(instant);
  return Number.isNaN(date.getTime()) ? String(date) : formatOf(options).format(date);
};
const inZone = (zone: string | undefined) => (zone === undefined ? {} : { timeZone: zone });

/** A day as it reads everywhere: 16 Nov 2026. */
export const dayOf = (instant: string | number | Date, zone?: string): string =>
  written(instant, { day: 'numeric', month: 'short', year: 'numeric', ...inZone(zone) });

/** The time of a day: 09:05. */
export const timeOf = (instant: string | number | Date, zone?: string): string =>
  written(instant, { hour: '2-digit', minute: '2-digit', ...inZone(zone) });

/** A moment: 16 Nov 2026, 09:05. */
export const momentOf = (instant: string | number | Date, zone?: string): string =>
  `${dayOf(instant, zone)}, ${timeOf(instant, zone)}`;

/** A day of these weeks: Mon 16 Nov. */
export const weekdayOf = (instant: string | number | Date, zone: string): string =>
  written(instant, { weekday: 'short', day: 'numeric', month: 'short', timeZone: zone });

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * A day as a person types it: `16 Nov 2026`, `16.11.2026`, `2026-11-16`; null where it is none. Two figures with strokes are not
 * guessed at: which of them is the month?
 */
export function readDay(text: string): Date | null {
  const trimmed = text.trim();
  const named = /^(\d{1,2})\.?\s+([a-z]{3,9})\.?\s+(\d{4})$/i.exec(trimmed);
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(trimmed);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(trimmed);
  const parts = named
    ? [Number(named[3]), months.indexOf(named[2]!.slice(0, 3).toLowerCase()), Number(named[1])]
    : iso
      ? [Number(iso[1]), Number(iso[2]) - 1, Number(iso[3])]
      : dotted
        ? [Number(dotted[3]), Number(dotted[2]) - 1, Number(dotted[1])]
        : null;
  if (parts === null) return null;
  const [year, month, day] = parts as [number, number, number];
  const made = new Date(year, month, day);
  return made.getFullYear() === year && made.getMonth() === month && made.getDate() === day ? made : null;
}
