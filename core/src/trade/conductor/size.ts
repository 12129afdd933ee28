import { circuitDefaults } from '../../model/document';
import type { Suggestion } from '../../ground/finding';
import { clearingTimeS, faultPoints, fuseRules } from '../fuse';
import { logSpaced } from '../../ground/math';
import { catalogueOf, partKey, type PartOf } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { cable, cableRules } from './cable';
import { together, type CableCriterion, type CablePlace } from './cable-place';
import { dropRule } from './cable-rules';
import { cableDutyRules } from './duty';
import { judgeCable, type Along, type EndChoice, type HeatOverLoad } from './judge-cable';

/** Share of the nominal voltage that a cable may drop where the circuit does not say. */
export const defaultMaxDropFraction = circuitDefaults.maxDropFraction;

/** One area in the table of all areas. */
export interface SizedCable extends Suggestion {
  areaMm2: number;
  conductorMaxC: number;
  ampacityA: number | null;
  conductorTemperatureC: number | null;
  /** Hottest over the load; null: not computed, for it fails before, or beyond 400 °C. */
  peakC: number | null;
  voltageDropV: number | null;
  dropFraction: number | null;
  /** Share of the ampacity that is used. */
  ampacityUse: number | null;
  governs: CableCriterion;
  /** Ends that have to be exchanged with it: they are taken along. */
  along: Along[];
}

/** Judges one cable of a list in the place of another. */
function size(
  part: PartOf<'cable'>,
  place: CablePlace,
  choice: SizeChoice,
  heat: HeatOverLoad = 'walked',
): SizedCable {
  const { massKgPerM: _mass, ...data } = part.data;
  const parsed = place.ways.map((way) => cable.parse({ ...way, ...data }));
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
      peakC: null,
      voltageDropV: null,
      dropFraction: null,
      ampacityUse: null,
      governs: 'does not fit the conduit',
      fits: false,
      reasons: [...new Set(issues.map(({ path, message }) => `${path} ${message}`))],
      along: [],
    };
  }
  const ways = parsed.flatMap((one) => (one.ok ? [one.input] : []));
  const result = together(ways.map((input) => cable.calculate(input).result));
  const { judged, peakC, along } = judgeCable(part, place, ways, result, choice, heat);
  const reasons = judged.flatMap(({ problem }) => (problem === null ? [] : [problem]));
  // What fails governs before what is only the fullest.
  const governing = judged.reduce((most, one) =>
    Number(one.problem !== null) - Number(most.problem !== null) > 0 ||
    (Number(one.problem !== null) === Number(most.problem !== null) && one.use > most.use)
      ? one
      : most,
  );
  const { ampacityA, conductorTemperatureC, voltageDropV, dropFraction } = result;
  return {
    ...named,
    ampacityA,
    conductorTemperatureC,
    peakC,
    voltageDropV,
    dropFraction,
    ampacityUse: ways[0]!.currentA / ampacityA,
    governs: governing.name,
    fits: reasons.length === 0,
    reasons,
    along,
  };
}

/** Which cables are sized: of one class of insulation or of all; those of the starter catalogue, or of a library. */
export interface SizeChoice extends EndChoice {
  conductorMaxC?: number;
  cables?: readonly PartOf<'cable'>[];
}

/**
 * Every cable of a list in a place, judged by the whole circuit: ampacity, load over time, voltage drop, withstand
 * against the fuse, the smallest fault that it leaves, lugs and gland. A row that fits raises no finding when it is taken
 * with what goes along.
 */
export function sizeTable(place: CablePlace, choice: SizeChoice = {}): SizedCable[] {
  const { conductorMaxC, cables = catalogueOf('cable') } = choice;
  return cables
    .filter(({ data }) => conductorMaxC === undefined || data.conductorMaxC === conductorMaxC)
    .map((part) => size(part, place, choice));
}

/** A cable that could be taken, and the ends that would go along. */
export type RankedCable = Suggestion & Pick<SizedCable, 'along'>;

/**
 * Cables for a place, at most so many: those that fit, of the same insulation first, the smallest first among them; where
 * none does, those with the fewest faults. Finds what the table of all would, without walking every cable through the load.
 */
export function rankCables(
  place: CablePlace,
  conductorMaxC: number,
  choice: SizeChoice,
  most: number,
): RankedCable[] {
  const { cables = catalogueOf('cable') } = choice;
  const other = ({ data }: PartOf<'cable'>) => Number(data.conductorMaxC !== conductorMaxC);
  const inOrder = [...cables].sort((a, b) => other(a) - other(b) || a.data.areaMm2 - b.data.areaMm2);
  const fitting: SizedCable[] = [];
  for (const part of inOrder) {
    if (fitting.length === most) break;
    if (!size(part, place, choice, 'left out').fits) continue;
    const sized = size(part, place, choice, 'where needed');
    if (sized.fits) fitting.push(sized);
  }
  const ranked =
    fitting.length > 0
      ? fitting
      : inOrder
          .map((part) => ({ part, sized: size(part, place, choice, 'where needed') }))
          .sort(
            (a, b) =>
              other(a.part) - other(b.part) ||
              a.sized.reasons.length - b.sized.reasons.length ||
              b.sized.areaMm2 - a.sized.areaMm2,
          )
          .slice(0, most)
          .map(({ sized }) => sized);
  return ranked.map(({ partKey: key, label, fits, reasons, along }) => ({
    partKey: key,
    label,
    fits,
    reasons,
    along,
  }));
}

/** What a cable must have to hold in a place, in numbers. */
export function cableNeeds({ ways, maxDropFraction, fuse }: CablePlace): string[] {
  const n = formatNumber;
  const [first] = ways;
  const lengthM = ways.reduce((sum, way) => sum + way.lengthM, 0);
  // The fault that asks the most of a conductor, where the fuse clears at all.
  const hardest =
    fuse === null
      ? null
      : logSpaced(fuse.faultMaxA / 40, fuse.faultMaxA, faultPoints)
          .map((currentA) => ({ currentA, clearS: clearingTimeS(fuse, currentA) }))
          .filter(
            (one): one is { currentA: number; clearS: number } => one.clearS !== null && one.clearS <= 5,
          )
          .reduce<{ currentA: number; clearS: number } | null>(
            (most, one) =>
              most === null || one.currentA ** 2 * one.clearS > most.currentA ** 2 * most.clearS ? one : most,
            null,
          );
  return [
    `an ampacity of ${n(first!.currentA)} A`,
    `a drop below ${n(maxDropFraction * first!.busVoltageV)} V over ${n(2 * lengthM)} m`,
    ...(hardest === null
      ? []
      : [`a section that bears ${n(hardest.currentA)} A for ${formatQuantity(hardest.clearS, 's')}`]),
  ];
}

/** The rules that a row of the table stands for. */
export const sizedRules = [
  cableRules.overloaded,
  cableRules.noBalance,
  cableDutyRules.overLimit,
  cableDutyRules.burns,
  dropRule,
  fuseRules.cable,
  fuseRules.slow,
  fuseRules.minimum,
];
