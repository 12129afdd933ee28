/** A day as it reads everywhere: 16 Nov 2026. */
export const dayOf = (instant: string | number | Date, zone?: string): string =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    ...(zone !== undefined && { timeZone: zone }),
  });

/** A moment: 16 Nov 2026, 09:05. */
export const momentOf = (instant: string | number | Date, zone?: string): string =>
  `${dayOf(instant, zone)}, ${new Date(instant).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    ...(zone !== undefined && { timeZone: zone }),
  })}`;

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
