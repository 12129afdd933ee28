import { parseQuantity } from '@torvek/core/quantity';

/** A reading as it is typed; `over`: the instrument read beyond its range, which ends at the value. */
export type ReadReading = { ok: true; value: number; over: boolean } | { ok: false; message: string };

/** Reads a value, or “>” with the end of the range: what an instrument shows that reads beyond it. */
export function readReading(text: string, unit: string): ReadReading {
  const trimmed = text.trim();
  if (/^(ol|o\.l\.?|over|over ?range|inf|∞)$/i.test(trimmed))
    return { ok: false, message: 'where does its range end? Write > and that value' };
  const over = /^[>≥]/.test(trimmed);
  const parsed = parseQuantity(over ? trimmed.slice(1) : trimmed, unit);
  if (!parsed.ok) return { ok: false, message: parsed.message };
  if (over && !(parsed.value > 0)) return { ok: false, message: 'a range ends above 0' };
  return { ok: true, value: parsed.value, over };
}
