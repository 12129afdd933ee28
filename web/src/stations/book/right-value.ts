import { parseQuantity } from '@torvek/core/quantity';
import type { Measured } from '@torvek/core/record';

export type ReadRight = { ok: true; measured: Measured } | { ok: false; message: string };

/** Whether what was measured can be typed again in a field: one value, or a list of them. */
export const canBeTyped = ({ kind }: Measured): boolean =>
  kind === 'value' || kind === 'ladder' || kind === 'list';

/** What stands in the field at first: the wrong one, to be set right. */
export function typedRight(measured: Measured): string {
  if (measured.kind === 'value') return String(measured.value);
  if (measured.kind === 'ladder') return measured.taps.join('\n');
  return measured.kind === 'list' ? measured.values.join('\n') : '';
}

/** The right value as it was typed, of the same kind and unit as the wrong one. */
export function readRight(text: string, wrong: Measured): ReadRight {
  const words = text.split(wrong.kind === 'value' ? /\n/ : /[\n\t;]+/).filter((word) => word.trim() !== '');
  const values: number[] = [];
  for (const [i, word] of words.entries()) {
    const read = parseQuantity(word, wrong.unit);
    if (!read.ok) return { ok: false, message: `reading ${i + 1}: ${read.message}` };
    values.push(read.value);
  }
  const asked = wrong.kind === 'ladder' ? wrong.taps.length : wrong.kind === 'list' ? wrong.values.length : 1;
  if (values.length !== asked)
    return { ok: false, message: `${asked === 1 ? 'one value is' : `${asked} readings are`} expected` };
  if (wrong.kind === 'value')
    return { ok: true, measured: { kind: 'value', value: values[0]!, unit: wrong.unit } };
  if (wrong.kind === 'ladder') return { ok: true, measured: { kind: 'ladder', taps: values, unit: 'V' } };
  return { ok: true, measured: { kind: 'list', values, unit: wrong.unit } };
}
