import { parseQuantity } from '@torvek/core/quantity';

export type ProfileRow = [durationS: string, currentA: string];
export type ReadProfile =
  | { ok: true; profile: [number, number][]; /** Rows that are not complete yet. */ waiting: number }
  | { ok: false; message: string };

/** Rows as typed: an empty one is none, one of which half is typed waits, and any other has to be right. */
export function readRows(rows: readonly ProfileRow[]): ReadProfile {
  const profile: [number, number][] = [];
  let waiting = 0;
  for (const [i, [duration, current]] of rows.entries()) {
    const [time, amps] = [duration.trim(), current.trim()];
    if (time === '' && amps === '') continue;
    if (time === '' || amps === '') {
      waiting += 1;
      continue;
    }
    const s = parseQuantity(time, 's');
    const a = parseQuantity(amps, 'A');
    if (!s.ok || s.value <= 0 || s.value > 1e9)
      return { ok: false, message: `Row ${i + 1}: seconds above 0${s.ok ? '' : `; ${s.message}`}.` };
    if (!a.ok || Math.abs(a.value) > 1e9)
      return {
        ok: false,
        message: `Row ${i + 1}: amperes, negative into the pack${a.ok ? '' : `; ${a.message}`}.`,
      };
    profile.push([s.value, a.value]);
  }
  return { ok: true, profile, waiting };
}

/**
 * Rows of a pasted block or of a file: seconds and amperes, parted by tab, semicolon or comma; a comma is decimal where a tab or
 * semicolon parts. Heading lines before the first row are passed over.
 */
export function rowsOf(text: string): ProfileRow[] {
  const rows: ProfileRow[] = [];
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '') continue;
    const parts = /[\t;]/.test(line)
      ? line.split(/[\t;]/).map((one) => one.replace(',', '.'))
      : line.split(',');
    const [time = '', amps = ''] = parts.map((one) => one.trim());
    if (rows.length === 0 && !/\d/.test(time)) continue;
    rows.push([time, amps]);
  }
  return rows;
}

/** What is typed as a steady load: amperes, or watts at the pack’s lowest voltage. */
export function readSteady(
  text: string,
  lowestV: number | null,
): { ok: true; currentA: number } | { ok: false; message: string } {
  const amps = parseQuantity(text, 'A');
  if (amps.ok) return { ok: true, currentA: amps.value };
  const watts = parseQuantity(text, 'W');
  if (!watts.ok) return { ok: false, message: amps.message };
  return lowestV === null || lowestV <= 0
    ? { ok: false, message: 'needs the pack’s lowest voltage, which is not computed' }
    : { ok: true, currentA: Math.round((watts.value / lowestV) * 1000) / 1000 };
}
