/** In which units a person wants to read and type; the design keeps its own. */
export interface UnitChoice {
  /** Lengths: mm and m, or inch and foot. */
  length: 'metric' | 'inch';
  /** Conductor areas: mm², or mm² with the nearest AWG beside it. */
  area: 'mm²' | 'AWG';
  temperature: '°C' | '°F';
  pressure: 'bar' | 'kPa' | 'psi';
}

export const metricChoice: UnitChoice = { length: 'metric', area: 'mm²', temperature: '°C', pressure: 'bar' };

/** How a stored value is shown: `stored / scale + offset`, in `unit`. */
export interface ShownIn {
  unit: string;
  scale: number;
  offset: number;
}

const kPaPerBar = 100;
/** Pound-force per square inch in one bar (NIST SP 811: 1 psi = 6.894757 kPa). */
const psiPerBar = kPaPerBar / 6.894757;

/**
 * The unit in which something is shown by choice.
 *
 * @param unit the unit it has without a choice (`mm`, `m`, `°C`, `bar`; any other stays)
 * @param scale stored value over shown value in that unit
 */
export function shownIn(unit: string, choice: UnitChoice, scale = 1): ShownIn {
  if (choice.length === 'inch' && unit === 'mm') return { unit: 'in', scale: scale * 25.4, offset: 0 };
  if (choice.length === 'inch' && unit === 'm') return { unit: 'ft', scale: scale * 0.3048, offset: 0 };
  if (choice.temperature === '°F' && unit === '°C') return { unit: '°F', scale: scale / 1.8, offset: 32 };
  if (choice.pressure === 'kPa' && unit === 'bar')
    return { unit: 'kPa', scale: scale / kPaPerBar, offset: 0 };
  if (choice.pressure === 'psi' && unit === 'bar')
    return { unit: 'psi', scale: scale / psiPerBar, offset: 0 };
  return { unit, scale, offset: 0 };
}

/** Area of an AWG size, mm²; 0 is 1/0, −1 is 2/0 and so on (ASTM B258: diameters in steps of the 39th root of 92). */
export function awgAreaMm2(gauge: number): number {
  const diameterMm = 0.127 * 92 ** ((36 - gauge) / 39);
  return (Math.PI / 4) * diameterMm ** 2;
}

/** The AWG size nearest to an area, as people write it (`2/0`, `4`); null beyond 4/0 and below 30. */
export function nearestAwg(areaMm2: number): string | null {
  if (!(areaMm2 > 0)) return null;
  const diameterMm = Math.sqrt((4 * areaMm2) / Math.PI);
  const gauge = Math.round(36 - (39 * Math.log(diameterMm / 0.127)) / Math.log(92));
  if (gauge < -3 || gauge > 30) return null;
  return gauge <= 0 ? `${1 - gauge}/0` : String(gauge);
}

/** Reads an AWG size (`2/0`, `4 AWG`, `AWG 10`); null when the text is none. A bare number is no gauge: it is mm². */
export function readAwg(text: string): number | null {
  const match = /^(?:awg\s*)?(\d{1,2})(\/0)?(?:\s*awg)?$/i.exec(text.trim());
  if (match === null || (match[2] === undefined && !/awg/i.test(text))) return null;
  const number = Number(match[1]);
  if (match[2] !== undefined) return number >= 1 && number <= 4 ? 1 - number : null;
  return number <= 40 ? number : null;
}
