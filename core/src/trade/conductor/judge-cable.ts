import { clearingTimeS, faultPoints, faultRange, uncoveredAt } from '../fuse';
import { logSpaced } from '../../ground/math';
import { catalogueOf, type PartOf } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Suggestion } from '../../ground/finding';
import { cable, type CableInput } from './cable';
import type { CableCriterion, CableFuse, CablePlace, Together } from './cable-place';
import { cableDuty, type CableDutyInput } from './duty';
import { conduitFill, overfilled } from './conduit';
import { glandProblems, rankGlands, rankLugs } from './ends';
import { loopOhm } from './loop';

/** Periods of the load that are walked: the conductor has settled long before. */
export const dutyPeriods = 400;

/** An end that has to be exchanged with a cable: it is taken along. */
export interface Along {
  kind: 'lug' | 'gland';
  partKey: string;
  label: string;
}

/** From which lugs and glands ends are taken along. */
export interface EndChoice {
  lugs?: readonly PartOf<'lug'>[];
  glands?: readonly PartOf<'gland'>[];
}

/** One criterion in the place of a cable, and how much of its limit is used. */
export interface JudgedCable {
  name: CableCriterion;
  use: number;
  problem: string | null;
}

/** The fault at the far end of a cable, A: low charge, cold, through the whole of its way. */
export function smallestFaultA(
  { lowV, coldOhm, contactOhm }: Pick<CableFuse, 'lowV' | 'coldOhm' | 'contactOhm'>,
  areaMm2: number,
  ways: readonly Pick<CableInput, 'lengthM' | 'parallel'>[],
): number {
  const lengthM = ways.reduce((sum, way) => sum + way.lengthM, 0);
  return lowV / (coldOhm + loopOhm(areaMm2, lengthM, ways[0]?.parallel ?? 1, contactOhm));
}

/**
 * By how much the fuse uses up what the conductor bears, as a share of its section: the greatest √(I²t) over all faults,
 * or more than anything where the fuse does not cover it at all.
 */
function withstandUse(fuse: CableFuse, faultMinA: number, limitA2s: number): number {
  let most = 0;
  for (const currentA of logSpaced(faultMinA, fuse.faultMaxA, faultPoints)) {
    const clearS = clearingTimeS(fuse, currentA);
    if (clearS === null) return Infinity;
    most = Math.max(most, Math.sqrt((currentA ** 2 * clearS) / limitA2s));
  }
  return most;
}

/**
 * How the load over time is judged: by a walk through it, for its peak is shown; by a walk only where the steady peak
 * would be too hot; not at all. The second finds the same to hold as the first, in a fraction of the time.
 */
export type HeatOverLoad = 'walked' | 'where needed' | 'left out';

/** A cable against the whole circuit: everything that a finding would say once it is taken. */
export function judgeCable(
  part: PartOf<'cable'>,
  place: CablePlace,
  ways: readonly CableInput[],
  result: Together,
  choice: EndChoice,
  heat: HeatOverLoad = 'walked',
): { judged: JudgedCable[]; peakC: number | null; along: Along[] } {
  const n = formatNumber;
  const q = formatQuantity;
  const { data } = part;
  const { maxDropFraction, fuse } = place;
  const currentA = ways[0]!.currentA;
  const over = currentA > result.ampacityA * (1 + 1e-9);
  const judged: JudgedCable[] = [
    {
      name: 'ampacity',
      use: currentA / result.ampacityA,
      problem: over ? `carries ${n(result.ampacityA)} A of the ${n(currentA)} A asked` : null,
    },
  ];
  const { dropFraction } = result;
  if (dropFraction !== null)
    judged.push({
      name: 'voltage drop',
      use: dropFraction / maxDropFraction,
      problem:
        dropFraction > maxDropFraction * (1 + 1e-9)
          ? `drops ${n(dropFraction * 100)} % where ${n(maxDropFraction * 100)} % are allowed`
          : null,
    });
  // What the mean square burns already needs no walk through the load.
  const walks =
    !over &&
    place.profile.length > 0 &&
    heat !== 'left out' &&
    (heat === 'walked' || !standsPeak(place, ways, coolest(data.conductorMaxC, choice)));
  const peakC = walks ? peakOver(place.profile, ways) : null;
  if (walks) {
    const ambientC = Math.min(...ways.map((way) => way.ambientC));
    judged.push({
      name: 'load over time',
      use: peakC === null ? Infinity : (peakC - ambientC) / (data.conductorMaxC - ambientC),
      problem:
        peakC === null
          ? 'passes 400 °C over the load'
          : peakC > data.conductorMaxC
            ? `reaches ${n(peakC)} °C over the load, its limit is ${n(data.conductorMaxC)} °C`
            : null,
    });
  }
  if (fuse !== null) {
    const faultMinA = Math.min(smallestFaultA(fuse, data.areaMm2, ways), fuse.faultMaxA);
    const limitA2s = (data.adiabaticK * data.areaMm2) ** 2;
    const bare = uncoveredAt({ ...fuse, faultMinA }, limitA2s);
    judged.push({
      name: 'short circuit',
      use: bare.length === 0 ? withstandUse(fuse, faultMinA, limitA2s) : Infinity,
      problem:
        bare.length === 0
          ? null
          : `burns before ${fuse.label} clears at ${bare.length} of ${faultPoints} fault currents, ${faultRange(bare)}`,
    });
    const clearS = clearingTimeS(fuse, faultMinA);
    const late = clearS === null || clearS > fuse.maxClearS;
    const below = faultMinA < fuse.minBreakingA;
    judged.push({
      name: 'fuse too slow',
      use: late || below ? Infinity : clearS / fuse.maxClearS,
      problem: below
        ? `leaves ${n(faultMinA)} A at its far end, ${fuse.label} must not be relied on below ${n(fuse.minBreakingA)} A`
        : late
          ? `leaves ${n(faultMinA)} A at its far end, which ${fuse.label} ${clearS === null ? 'may never clear' : `clears after ${q(clearS, 's')}`}; ${q(fuse.maxClearS, 's')} are allowed`
          : null,
    });
  }
  const fill = ways.map((way) => conduitFill(way, data.outerDiameterMm)).find(overfilled);
  if (fill !== undefined && fill !== null)
    judged.push({
      name: 'does not fit the conduit',
      use: Infinity,
      problem: `fills ${n(fill.fill * 100)} % of a conduit of ${n(fill.conduitInnerMm)} mm; ${n(fill.most * 100)} % go in`,
    });
  const ends = endsOf(part, place, peakC ?? result.conductorTemperatureC, choice);
  return { judged: [...judged, ...ends.judged], peakC, along: ends.along };
}

/** What cable and lugs of a choice all stand, °C. */
const coolest = (conductorMaxC: number, { lugs = catalogueOf('lug') }: EndChoice) =>
  lugs.reduce((least, { data }) => Math.min(least, data.maxC), conductorMaxC);

/** Whether the peak of a load, held for ever, stays below a limit: then the load stays below it whatever its course. */
function standsPeak({ profile }: CablePlace, ways: readonly CableInput[], limitC: number): boolean {
  const peakA = profile.reduce((most, [, currentA]) => Math.max(most, Math.abs(currentA)), 0);
  return ways.every((way) => {
    const { conductorTemperatureC } = cable.calculate({ ...way, currentA: peakA }).result;
    return conductorTemperatureC !== null && conductorTemperatureC < limitC - 1;
  });
}

/** The hottest of a load over all parts of a way, °C; null beyond 400 °C. */
function peakOver(profile: [number, number][], ways: readonly CableInput[]): number | null {
  let most = -Infinity;
  for (const { currentA: _rms, ...way } of ways) {
    const input: CableDutyInput = { ...way, profile, repeat: dutyPeriods, startC: way.ambientC };
    const { peakTemperatureC } = cableDuty.calculate(input).result;
    if (peakTemperatureC === null) return null;
    most = Math.max(most, peakTemperatureC);
  }
  return most;
}

/** Chosen ends that do not fit another cable are exchanged with it; where nothing fits, they decide. */
function endsOf(
  { data }: PartOf<'cable'>,
  { lug, gland, studMm, screensClamped }: CablePlace,
  conductorTemperatureC: number | null,
  { lugs = catalogueOf('lug'), glands = catalogueOf('gland') }: EndChoice,
): { judged: JudgedCable[]; along: Along[] } {
  const end = {
    areaMm2: data.areaMm2,
    outerDiameterMm: data.outerDiameterMm,
    conductorTemperatureC,
    studMm,
    screensClamped,
  };
  const judged: JudgedCable[] = [];
  const along: Along[] = [];
  const add = (kind: 'lug' | 'gland', holds: boolean, first: Suggestion | undefined, nothing: string) => {
    if (holds) return;
    if (first?.fits) along.push({ kind, partKey: first.partKey, label: first.label });
    else judged.push({ name: kind, use: Infinity, problem: nothing });
  };
  if (lug !== null) {
    const holds =
      lug.areaMm2 === end.areaMm2 &&
      (studMm === null || lug.studMm === studMm) &&
      (conductorTemperatureC === null || conductorTemperatureC <= lug.maxC);
    add(
      'lug',
      holds,
      holds ? undefined : rankLugs(lugs, end)[0],
      `has no lug for ${formatNumber(end.areaMm2)} mm²${studMm === null ? '' : ` on M${formatNumber(studMm)}`}${conductorTemperatureC === null ? '' : ` at ${formatNumber(conductorTemperatureC)} °C`} in the library`,
    );
  }
  if (gland !== null) {
    const holds = glandProblems(gland, end).length === 0;
    add(
      'gland',
      holds,
      holds ? undefined : rankGlands(glands, end)[0],
      `has no gland for ${formatNumber(end.outerDiameterMm)} mm in the library`,
    );
  }
  return { judged, along };
}
