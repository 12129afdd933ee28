/** Units whose figures are shown with a metric prefix when that reads better. */
const prefixed = new Set(['Ω', 'F', 's', 'J', 'W', 'H', 'A²s']);

const prefixes: [number, string][] = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
  [1e-9, 'n'],
];

/**
 * Rounds to significant digits without an exponent for magnitudes people read (1e-4 to 1e7).
 *
 * @param value any finite number
 * @param digits significant digits, 3 by default; whole numbers keep all their digits up to 7
 */
export function formatNumber(value: number, digits = 3): string {
  if (value === 0) return '0';
  const size = Math.abs(value);
  if (size >= 1e7 || size < 1e-4) return value.toExponential(digits - 1).replace(/\.?0+e/, 'e');
  if (size >= 10 ** digits) return String(Math.round(value));
  const text = value.toPrecision(digits);
  return text.includes('e') ? String(Number(text)) : text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

export interface Shown {
  /** The number as text, in the shown unit. */
  number: string;
  /** The unit shown beside it; may carry a metric prefix. */
  unit: string;
}

/**
 * A figure as people read it: sensible digits, a metric prefix where it helps, a fraction as a percentage.
 *
 * @param value in `unit`
 * @param unit SI unit or one of the trade (`kWh`, `mm²`, `°C`, `fraction`)
 * @param digits significant digits, 3 by default
 */
export function showQuantity(value: number, unit: string, digits = 3): Shown {
  if (unit === 'fraction') return { number: formatNumber(value * 100, digits), unit: '%' };
  if (!prefixed.has(unit) || value === 0) return { number: formatNumber(value, digits), unit };
  const size = Math.abs(value);
  if (unit === 's' && size >= 1) return { number: formatNumber(value, digits), unit };
  const [scale, prefix] = prefixes.find(([least]) => size >= least * 0.99995) ?? [1e-9, 'n'];
  if (unit === 'A²s') {
    return { number: formatNumber(value / scale, digits), unit: scale > 1 ? `${prefix}A²s` : unit };
  }
  return { number: formatNumber(value / scale, digits), unit: prefix + unit };
}

/** The same as one string, `"1.2 mF"`. */
export function formatQuantity(value: number, unit: string, digits = 3): string {
  const shown = showQuantity(value, unit, digits);
  return shown.unit === '' ? shown.number : `${shown.number} ${shown.unit}`;
}
