import { parse } from 'papaparse';

export type ReadCycle =
  { ok: true; points: [timeS: number, speedKmH: number][] } | { ok: false; message: string };

const mostRows = 20_000;

/**
 * Reads speed over time from CSV: time in s and speed in km/h, the first two columns, with or without a line of names
 * above. A decimal comma is read where columns are parted by semicolons or tabs.
 */
export function readCycle(text: string): ReadCycle {
  const { data } = parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const number = (cell: string | undefined) => {
    const plain = (cell ?? '').trim().replace(/^"|"$/g, '');
    return plain === '' ? NaN : Number(plain.replace(',', '.'));
  };
  const rows = data.filter((row) => row.some((cell) => cell.trim() !== ''));
  const named = rows.length > 0 && Number.isNaN(number(rows[0]![0])) && Number.isNaN(number(rows[0]![1]));
  const body = named ? rows.slice(1) : rows;
  const line = (i: number) => i + (named ? 2 : 1);
  if (body.length < 2)
    return { ok: false, message: 'A cycle has at least two rows: time in s, speed in km/h.' };
  if (body.length > mostRows)
    return { ok: false, message: `A cycle has at most ${mostRows} rows; this has ${body.length}.` };
  const points: [number, number][] = [];
  for (const [i, row] of body.entries()) {
    const timeS = number(row[0]);
    const speedKmH = number(row[1]);
    if (!Number.isFinite(timeS) || !Number.isFinite(speedKmH))
      return {
        ok: false,
        message: `Line ${line(i)}: “${row.slice(0, 2).join(' | ').slice(0, 40)}” is not a time and a speed.`,
      };
    if (timeS < 0 || speedKmH < 0 || speedKmH > 400)
      return { ok: false, message: `Line ${line(i)}: time 0 or more, speed 0 to 400 km/h.` };
    const before = points.at(-1);
    if (before !== undefined && timeS <= before[0])
      return {
        ok: false,
        message: `Line ${line(i)}: time must rise; ${timeS} s comes after ${before[0]} s.`,
      };
    points.push([timeS, speedKmH]);
  }
  if (points.at(-1)![0] - points[0]![0] > 86_400)
    return { ok: false, message: 'A cycle lasts at most a day.' };
  return { ok: true, points };
}
