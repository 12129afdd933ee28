import { catalogueOf, partKey, type PartOf } from '../parts';
import { formatNumber } from '../quantity';
import { cable, type CableInput, type CableResult } from './cable';
import { glandProblem } from './ends';

/** Share of the nominal voltage that a cable may drop where the circuit does not say. */
export const defaultMaxDropFraction = 0.02;

/** Which criterion decides: the one whose use of its limit is the greatest. */
export type CableCriterion = 'ampacity' | 'voltage drop' | 'gland' | 'does not fit the conduit';

/** What a cable’s parts make together: the hottest governs, drops and losses add up. */
export type Together = Pick<
  CableResult,
  'ampacityA' | 'conductorTemperatureC' | 'voltageDropV' | 'dropFraction' | 'lossW'
>;

/** Puts the results of a cable’s parts together; null as soon as one of them finds no balance. */
export function together(results: readonly CableResult[]): Together {
  const sum = (name: 'voltageDropV' | 'dropFraction' | 'lossW') =>
    results.some((one) => one[name] === null)
      ? null
      : results.reduce((total, one) => total + (one[name] as number), 0);
  return {
    ampacityA: Math.min(...results.map(({ ampacityA }) => ampacityA)),
    conductorTemperatureC: results.some((one) => one.conductorTemperatureC === null)
      ? null
      : Math.max(...results.map((one) => one.conductorTemperatureC!)),
    voltageDropV: sum('voltageDropV'),
    dropFraction: sum('dropFraction'),
    lossW: sum('lossW'),
  };
}

/** One area in the table of all areas. */
export interface SizedCable {
  partKey: string;
  label: string;
  areaMm2: number;
  conductorMaxC: number;
  ampacityA: number | null;
  conductorTemperatureC: number | null;
  voltageDropV: number | null;
  dropFraction: number | null;
  /** Share of each limit that is used. */
  ampacityUse: number | null;
  dropUse: number | null;
  governs: CableCriterion;
  fits: boolean;
  reasons: string[];
}

/** Judges one cable of the catalogue in the place of another. */
function size(part: PartOf<'cable'>, ways: readonly CableInput[], maxDropFraction: number): SizedCable {
  const { massKgPerM: _mass, ...data } = part.data;
  const parsed = ways.map((way) => cable.parse({ ...way, ...data }));
  const issues = parsed.flatMap((one) => (one.ok ? [] : one.issues));
  const named = {
    partKey: partKey(part),
    label: part.label,
    areaMm2: part.data.areaMm2,
    conductorMaxC: part.data.conductorMaxC,
  };
  if (issues.length > 0) {
    return {
      ...named,
      ampacityA: null,
      conductorTemperatureC: null,
      voltageDropV: null,
      dropFraction: null,
      ampacityUse: null,
      dropUse: null,
      governs: 'does not fit the conduit',
      fits: false,
      reasons: [...new Set(issues.map(({ path, message }) => `${path} ${message}`))],
    };
  }
  const result = together(parsed.flatMap((one) => (one.ok ? [cable.calculate(one.input).result] : [])));
  const currentA = ways[0]!.currentA;
  const ampacityUse = currentA / result.ampacityA;
  const dropUse = result.dropFraction === null ? null : result.dropFraction / maxDropFraction;
  const reasons = cableFailures(result, currentA, maxDropFraction);
  const governs = dropUse !== null && dropUse > ampacityUse ? 'voltage drop' : 'ampacity';
  const { ampacityA, conductorTemperatureC, voltageDropV, dropFraction } = result;
  return {
    ...named,
    ampacityA,
    conductorTemperatureC,
    voltageDropV,
    dropFraction,
    ampacityUse,
    dropUse,
    governs,
    fits: reasons.length === 0,
    reasons,
  };
}

export function cableFailures(
  result: Pick<CableResult, 'ampacityA' | 'dropFraction'>,
  currentA: number,
  maxDropFraction: number,
): string[] {
  const reasons: string[] = [];
  if (currentA > result.ampacityA * (1 + 1e-9)) {
    reasons.push(`carries ${formatNumber(result.ampacityA)} A of the ${formatNumber(currentA)} A asked`);
  }
  if (result.dropFraction !== null && result.dropFraction > maxDropFraction * (1 + 1e-9)) {
    reasons.push(
      `drops ${formatNumber(result.dropFraction * 100)} % where ${formatNumber(maxDropFraction * 100)} % are allowed`,
    );
  }
  return reasons;
}

/** Which cables are sized: of one class of insulation or of all; those of the starter catalogue, or of a library. */
export interface SizeChoice {
  conductorMaxC?: number;
  cables?: readonly PartOf<'cable'>[];
  /** The gland they must go through. */
  gland?: PartOf<'gland'>;
}

/** Every cable in the place of another, whose way may have parts, of one class of insulation or of all; drop judged against a share of 0…1. */
export function sizeTable(
  ways: readonly CableInput[],
  maxDropFraction: number,
  { conductorMaxC, cables = catalogueOf('cable'), gland }: SizeChoice = {},
): SizedCable[] {
  return cables
    .filter(({ data }) => conductorMaxC === undefined || data.conductorMaxC === conductorMaxC)
    .map((part) => {
      const sized = size(part, ways, maxDropFraction);
      const clamp = gland === undefined ? null : glandProblem(gland.data, part.data.outerDiameterMm);
      if (clamp === null) return sized;
      const reasons = [...sized.reasons, `the gland ${clamp}`];
      // Where nothing else fails it is the gland that decides.
      return { ...sized, fits: false, reasons, ...(sized.fits && { governs: 'gland' as const }) };
    });
}
