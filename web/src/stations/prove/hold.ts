import { parseQuantity } from '@torvek/core/quantity';
import type { Measured } from '@torvek/core/record';

/** What is typed of a hold under pressure. */
export const emptyHold = {
  startKPaGauge: '',
  startC: '',
  atmosphereKPa: '',
  endKPaGauge: '',
  endC: '',
  endAtmosphereKPa: '',
  minutes: '',
};
export type HoldText = typeof emptyHold;
export type Hold = Extract<Measured, { kind: 'hold' }>;

export const holdRows: { field: keyof HoldText; label: string; unit: string; optional?: boolean }[] = [
  { field: 'startKPaGauge', label: 'Gauge at the beginning', unit: 'kPa' },
  { field: 'startC', label: 'Temperature then', unit: '°C' },
  { field: 'atmosphereKPa', label: 'Barometer then, where read', unit: 'kPa', optional: true },
  { field: 'endKPaGauge', label: 'Gauge at the end', unit: 'kPa' },
  { field: 'endC', label: 'Temperature then', unit: '°C' },
  { field: 'endAtmosphereKPa', label: 'Barometer then, where read', unit: 'kPa', optional: true },
  { field: 'minutes', label: 'Held for', unit: 'min' },
];

/** Reads the fields of a hold, or says which is wrong. */
export function readHold(text: HoldText): { ok: true; measured: Hold } | { ok: false; message: string } {
  const values: Partial<Record<keyof HoldText, number>> = {};
  for (const { field, label, unit, optional = false } of holdRows) {
    if (text[field].trim() === '' && optional) continue;
    const where = field.startsWith('end') ? 'at the end' : field === 'minutes' ? '' : 'at the beginning';
    const parsed = parseQuantity(text[field], unit);
    if (!parsed.ok)
      return { ok: false, message: `${label}${where === '' ? '' : ` (${where})`}: ${parsed.message}.` };
    values[field] = parsed.value;
  }
  if (!(values.minutes! > 0)) return { ok: false, message: 'Held for: above 0 minutes.' };
  return { ok: true, measured: { kind: 'hold', ...values, unit: 'kPa' } as Hold };
}

/** A reading as it would be typed. */
export const holdText = (hold: Hold): HoldText =>
  Object.fromEntries(
    holdRows.map(({ field }) => [field, hold[field] === undefined ? '' : String(hold[field])]),
  ) as HoldText;
