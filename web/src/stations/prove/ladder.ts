import { parseQuantity } from '@torvek/core/quantity';

export type ReadLadder = { ok: true; taps: number[] } | { ok: false; message: string };

/** Reads the pins of a plug: one a line, or beside each other; a comma is a decimal. */
export function readLadder(text: string, pins: number): ReadLadder {
  const words = text
    .split(/[\n\t; ]+/)
    .map((word) => word.trim())
    .filter((word) => word !== '' && !/^v$/i.test(word));
  const taps: number[] = [];
  for (const [i, word] of words.entries()) {
    const read = parseQuantity(word, 'V');
    if (!read.ok) return { ok: false, message: `pin ${i + 2}: ${word} ${read.message}` };
    taps.push(read.value);
  }
  if (taps.length !== pins)
    return {
      ok: false,
      message: `${pins} readings are expected, from pin 2 to ${pins + 1}; ${taps.length} are here`,
    };
  return { ok: true, taps };
}

export type ReadList = { ok: true; values: number[] } | { ok: false; message: string };

/** Reads one value for each thing named: one a line, or apart by tabs or semicolons. */
export function readList(text: string, items: readonly string[], unit: string): ReadList {
  const words = text
    .split(/[\n\t;]+/)
    .map((word) => word.trim())
    .filter((word) => word !== '');
  const values: number[] = [];
  for (const [i, word] of words.entries()) {
    const read = parseQuantity(word, unit);
    if (!read.ok) return { ok: false, message: `${items[i] ?? `reading ${i + 1}`}: ${word} ${read.message}` };
    values.push(read.value);
  }
  if (values.length < items.length)
    return { ok: false, message: `${items[values.length]!} is still to be read` };
  if (values.length > items.length)
    return { ok: false, message: `${items.length} readings are expected; ${values.length} are here` };
  return { ok: true, values };
}

/** Readings a tenth or ten times of what cells give: most likely the meter’s range. */
export function ladderDoubt(
  taps: readonly number[],
  cells: number,
  minV: number,
  maxV: number,
): string | null {
  const top = taps[cells - 1] ?? 0;
  const mean = top / cells;
  if (mean >= minV && mean <= maxV) return null;
  for (const [factor, words] of [
    [10, 'a tenth'],
    [0.1, 'ten times'],
    [-1, 'the leads the other way round'],
  ] as const) {
    const fixed = mean * factor;
    if (fixed >= minV && fixed <= maxV)
      return `These are ${words} of what ${cells} cells give: is that what the meter says?`;
  }
  return null;
}
