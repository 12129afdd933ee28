import { awgAreaMm2, readAwg } from './choice';
import { formatNumber } from './format';

/** How many SI (or storage) units one of the named unit is, by the unit the field stores. */
const known: Record<string, Record<string, number>> = {
  m: { m: 1, mm: 1e-3, cm: 1e-2, km: 1e3, in: 0.0254, ft: 0.3048 },
  mm: { mm: 1, cm: 10, m: 1e3, in: 25.4 },
  kg: { kg: 1, g: 1e-3, t: 1e3, lb: 0.45359237 },
  V: { V: 1, mV: 1e-3, kV: 1e3 },
  A: { A: 1, mA: 1e-3, kA: 1e3 },
  Ω: { Ω: 1, ohm: 1, R: 1, mΩ: 1e-3, mohm: 1e-3, kΩ: 1e3, kohm: 1e3, MΩ: 1e6, Mohm: 1e6, GΩ: 1e9, Gohm: 1e9 },
  MΩ: { MΩ: 1, Mohm: 1, GΩ: 1e3, Gohm: 1e3, kΩ: 1e-3, kohm: 1e-3, Ω: 1e-6, ohm: 1e-6 },
  F: { F: 1, mF: 1e-3, µF: 1e-6, uF: 1e-6, nF: 1e-9 },
  µF: { µF: 1, uF: 1, mF: 1e3, F: 1e6, nF: 1e-3 },
  mΩ: { mΩ: 1, mohm: 1, Ω: 1e3, ohm: 1e3, µΩ: 1e-3 },
  kW: { kW: 1, W: 1e-3 },
  W: { W: 1, kW: 1e3, MW: 1e6 },
  s: { s: 1, ms: 1e-3, min: 60, h: 3600 },
  'km/h': { 'km/h': 1, kmh: 1, 'm/s': 3.6, mph: 1.609344 },
  km: { km: 1, m: 1e-3, mi: 1.609344 },
  'mm²': { 'mm²': 1, mm2: 1 },
  '°C': { '°C': 1, C: 1 },
  '°F': { '°F': 1, F: 1 },
  in: { in: 1, ft: 12, mm: 1 / 25.4, cm: 1 / 2.54, m: 1 / 0.0254 },
  ft: { ft: 1, in: 1 / 12, m: 1 / 0.3048, cm: 1 / 30.48, mm: 1 / 304.8 },
  bar: { bar: 1, mbar: 1e-3, kPa: 0.01, Pa: 1e-5, MPa: 10, psi: 0.06894757 },
  kPa: { kPa: 1, Pa: 1e-3, MPa: 1e3, bar: 100, mbar: 0.1, psi: 6.894757 },
  psi: { psi: 1, bar: 1 / 0.06894757, kPa: 1 / 6.894757 },
  fraction: { '': 1, '%': 0.01 },
  '%': { '%': 1, '': 1 },
};

const suffixes: Record<string, number> = { k: 1e3, M: 1e6, m: 1e-3, u: 1e-6, µ: 1e-6, n: 1e-9 };

/** A note says what was made of something that is no plain number (an AWG size). */
export type ParsedQuantity = { ok: true; value: number; note?: string } | { ok: false; message: string };

/**
 * Reads what a person types into a number field: decimal comma or point, a unit, arithmetic.
 *
 * `"35 mm"` into a field in m is 0.035; `"1,2k"` is 1200; `"3*14.8"` is 44.4; `"400 uF"` into F is 4e-4.
 * A comma is always decimal; grouping (`"1,234.5"`) is refused by its text.
 *
 * @param text what was typed
 * @param unit the unit the value is stored in
 */
export function parseQuantity(text: string, unit: string): ParsedQuantity {
  const trimmed = text.trim();
  if (trimmed === '') return { ok: false, message: 'a number is missing' };
  const other =
    unit === 'mm²' ? areaOfGauge(trimmed) : (otherTemperature(trimmed, unit) ?? feetAndInches(trimmed, unit));
  if (other !== null) return other;
  if (/\d[.,]\d*[.,]/.test(trimmed)) {
    return { ok: false, message: `"${short(trimmed)}" has more than one decimal sign; leave out grouping` };
  }
  const tokens = tokenise(trimmed.replace(/,/g, '.'));
  if (tokens === null) return { ok: false, message: `"${short(trimmed)}" is not a number` };
  try {
    const value = new Arithmetic(tokens, unit).run();
    if (!Number.isFinite(value)) return { ok: false, message: `"${short(trimmed)}" is not a finite number` };
    return { ok: true, value };
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : 'not a number' };
  }
}

/** `2/0` and `AWG 4` in a field of area. */
function areaOfGauge(text: string): ParsedQuantity | null {
  const gauge = readAwg(text);
  if (gauge === null) return null;
  const value = Number(awgAreaMm2(gauge).toPrecision(4));
  return { ok: true, value, note: `${text} is ${formatNumber(value)} mm²` };
}

/** A temperature given in the other scale: its zero lies elsewhere, so that no factor converts it. */
function otherTemperature(text: string, unit: string): ParsedQuantity | null {
  if (unit !== '°C' && unit !== '°F') return null;
  const given = /^(.*\d)\s*°?([CF])$/i.exec(text);
  if (given === null || `°${given[2]!.toUpperCase()}` === unit) return null;
  const parsed = parseQuantity(given[1]!, '');
  if (!parsed.ok) return parsed;
  const { value } = parsed;
  return { ok: true, value: unit === '°C' ? (value - 32) / 1.8 : value * 1.8 + 32 };
}

/** `10 ft 6 in` and `10' 6"` in a field of length. */
function feetAndInches(text: string, unit: string): ParsedQuantity | null {
  const given = /^(-?)(\d+(?:[.,]\d+)?)\s*(?:ft|')\s*(\d+(?:[.,]\d+)?)\s*(?:in|"|'')$/.exec(text);
  const ofInch = known[unit]?.in;
  if (given === null || ofInch === undefined || known[unit]?.mm === undefined) return null;
  const number = (part: string) => Number(part.replace(',', '.'));
  const inches = number(given[2]!) * 12 + number(given[3]!);
  return { ok: true, value: Number(((given[1] === '-' ? -inches : inches) * ofInch).toPrecision(15)) };
}

const short = (text: string) => (text.length > 30 ? `${text.slice(0, 30)}…` : text);

type Token = { kind: 'number'; value: number } | { kind: 'sign' | 'word'; text: string };

function tokenise(text: string): Token[] | null {
  const tokens: Token[] = [];
  const pattern = /\s*(?:(\d+\.?\d*(?:[eE][+-]?\d+)?|\.\d+)|(km\/h|m\/s|[A-Za-zµΩ°%²]+2?)|([-+*/()−×]))/y;
  let at = 0;
  while (at < text.length) {
    pattern.lastIndex = at;
    const match = pattern.exec(text);
    if (match === null) return text.slice(at).trim() === '' ? tokens : null;
    const [, number, word, sign] = match;
    if (number !== undefined) tokens.push({ kind: 'number', value: Number(number) });
    else if (word !== undefined) tokens.push({ kind: 'word', text: word });
    else tokens.push({ kind: 'sign', text: (sign ?? '').replace('−', '-').replace('×', '*') });
    at = pattern.lastIndex;
  }
  return tokens;
}

/** Recursive descent over `+ - * / ( )`; a unit may follow any number or bracket. */
class Arithmetic {
  private at = 0;
  constructor(
    private readonly tokens: Token[],
    private readonly unit: string,
  ) {}

  run(): number {
    const value = this.sum();
    const left = this.tokens[this.at];
    if (left !== undefined)
      throw new Error(`cannot read "${left.kind === 'number' ? left.value : left.text}"`);
    return value;
  }

  private takeSign(...wanted: string[]): string | null {
    const token = this.tokens[this.at];
    if (token?.kind !== 'sign' || !wanted.includes(token.text)) return null;
    this.at += 1;
    return token.text;
  }

  private sum(): number {
    let value = this.product();
    for (let sign = this.takeSign('+', '-'); sign !== null; sign = this.takeSign('+', '-')) {
      value += sign === '+' ? this.product() : -this.product();
    }
    return value;
  }

  private product(): number {
    let value = this.factor();
    for (let sign = this.takeSign('*', '/'); sign !== null; sign = this.takeSign('*', '/')) {
      value = sign === '*' ? value * this.factor() : value / this.factor();
    }
    return value;
  }

  private factor(): number {
    if (this.takeSign('-') !== null) return -this.factor();
    if (this.takeSign('+') !== null) return this.factor();
    return this.bare() * this.unitScale();
  }

  private bare(): number {
    if (this.takeSign('(') !== null) {
      const value = this.sum();
      if (this.takeSign(')') === null) throw new Error('a bracket is not closed');
      return value;
    }
    const token = this.tokens[this.at];
    if (token?.kind !== 'number') throw new Error('a number is missing');
    this.at += 1;
    return token.value;
  }

  private unitScale(): number {
    const token = this.tokens[this.at];
    if (token?.kind !== 'word') return 1;
    this.at += 1;
    const scale = known[this.unit]?.[token.text] ?? (token.text === this.unit ? 1 : undefined);
    if (scale !== undefined) return scale;
    const suffix = suffixes[token.text];
    if (suffix !== undefined) return suffix;
    throw new Error(`"${token.text}" is not a unit of ${this.unit || 'this field'}`);
  }
}
