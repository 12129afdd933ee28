import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Criterion } from '../../model/step';
import type { FuseInput, FuseResult } from './fuse';
import { continuousShare, derating, faultPoints } from './limits';
import { clearingTimeS } from './melting';
import { fuseRules } from './rules';

/** A fuse that lasts for so many hours of its load is not worn by it: more than a vehicle is ever driven. */
export const wearHorizonH = 20_000;

/** For how long a fuse bears its load, h; null: for ever. */
export function lifeH(
  { loadProfile }: Pick<FuseInput, 'loadProfile'>,
  periods: number | null,
): number | null {
  if (periods === null) return null;
  let seconds = 0;
  for (const [durationS] of loadProfile) seconds += durationS;
  return (periods * seconds) / 3600;
}

/** A fuse against its own circuit: what the calculator finds, in words and with every number. */
export function fuseOwnCriteria(input: FuseInput, result: FuseResult): Criterion[] {
  const n = formatNumber;
  const q = formatQuantity;
  const { faultMinA, faultMaxA, maxClearS, minBreakingA, busVoltageV, ratedVoltageV, breakingA } = input;
  const smallest = { label: 'smallest fault', value: faultMinA, unit: 'A' };
  const clearS = clearingTimeS(input, faultMinA);
  const factor = derating(input).value;
  const takesA = input.ratedA * factor;
  const hours = lifeH(input, result.periodsToWearOut);
  const bare = result.unprotectedAtA;
  const bearsA2s = input.cable === undefined ? 0 : (input.cable.k * input.cable.areaMm2) ** 2;
  const span = bare.length === 0 ? '' : faultRange(bare);
  return [
    {
      rule: fuseRules.voltage,
      problem: result.voltageOk
        ? null
        : `is rated ${n(ratedVoltageV)} V DC, the bus reaches ${n(busVoltageV)} V`,
      values: [
        { label: 'highest pack voltage', value: busVoltageV, unit: 'V' },
        { label: 'rated voltage of the fuse', value: ratedVoltageV, unit: 'V' },
      ],
    },
    {
      rule: fuseRules.breaking,
      problem: result.breakingOk ? null : `breaks ${n(breakingA)} A, the largest fault is ${n(faultMaxA)} A`,
      values: [
        { label: 'largest fault', value: faultMaxA, unit: 'A' },
        { label: 'breaking capacity of the fuse', value: breakingA, unit: 'A' },
      ],
    },
    {
      rule: fuseRules.minimum,
      problem: result.belowMinBreaking
        ? `must not be relied on below ${n(minBreakingA)} A, the smallest fault is ${n(faultMinA)} A`
        : null,
      values: [smallest, { label: 'least breaking current', value: minBreakingA, unit: 'A' }],
    },
    {
      rule: fuseRules.slow,
      problem:
        clearS === null
          ? `may never melt at the smallest fault of ${n(faultMinA)} A`
          : clearS > maxClearS
            ? `clears the smallest fault of ${n(faultMinA)} A after ${q(clearS, 's')}, the limit is ${q(maxClearS, 's')}`
            : null,
      values: [
        smallest,
        ...(clearS === null ? [] : [{ label: 'clears it after', value: clearS, unit: 's' }]),
        { label: 'limit of the clearing', value: maxClearS, unit: 's' },
      ],
    },
    {
      rule: fuseRules.continuous,
      problem: result.continuousOk
        ? null
        : `carries ${n(result.rmsA)} A in the mean square, ${n(result.rmsFraction * 100)} % of the ${n(takesA)} A that it is rated for at ${n(input.ambientC)} °C; ${n(continuousShare * 100)} % is the limit`,
      values: [
        { label: 'load', value: result.rmsA, unit: 'A' },
        { label: 'of the derated rating', value: result.rmsFraction, unit: 'fraction' },
        { label: 'derated rating', value: takesA, unit: 'A' },
        { label: 'ambient at the fuse', value: input.ambientC, unit: '°C' },
        { label: 'share it carries for years', value: continuousShare, unit: 'fraction' },
      ],
    },
    {
      rule: fuseRules.wear,
      problem:
        hours !== null && hours < wearHorizonH
          ? `is worn out after ${q(hours, 'h')} of this load: each period uses ${n(result.wearPerPeriod * 100)} % of it`
          : null,
      values: [
        { label: 'worn out after', value: hours ?? 0, unit: 'h' },
        { label: 'wear per period', value: result.wearPerPeriod, unit: 'fraction' },
      ],
    },
    {
      rule: fuseRules.cable,
      problem:
        bare.length === 0
          ? null
          : `clears after the cable has burnt at ${bare.length} of ${faultPoints} fault currents, ${span}`,
      sentence: `The cable burns before the fuse clears at ${bare.length} of ${faultPoints} fault currents, ${span}.`,
      values: [
        { label: 'fault currents not covered', value: bare.length, unit: '' },
        { label: 'fault currents tried', value: faultPoints, unit: '' },
        { label: 'lowest not covered', value: bare[0] ?? 0, unit: 'A' },
        { label: 'highest not covered', value: bare.at(-1) ?? 0, unit: 'A' },
        { label: 'what the cable bears', value: bearsA2s, unit: 'A²s' },
      ],
    },
  ];
}

/** “from 2152 A to 6385 A”, or “at 2152 A” where there is but one. */
export const faultRange = (currents: readonly number[]): string =>
  currents.length === 1
    ? `at ${formatNumber(currents[0]!, 4)} A`
    : `from ${formatNumber(currents[0]!, 4)} A to ${formatNumber(currents.at(-1)!, 4)} A`;
