import { mainCircuit, circuitDefaults, packDefaults } from '../../model/document';
import { rulesOf, type CheckValue } from '../../ground/finding';
import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import {
  resistanceFactors,
  stringResistance,
  stringShares,
  type ParallelString,
  type StringShare,
} from '../pack';
import { partKey, type FuseData } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { continuousShare, derating } from './limits';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';

const rule = rulesOf('strings');

export const stringRules = {
  voltage: rule(
    'fuse-voltage',
    'stop',
    'The fuse of a string is not made for this voltage',
    'An arc that the fuse cannot put out burns on inside the pack.',
    'A fuse whose DC rating is at or above the highest pack voltage.',
    'Fuse makers’ DC ratings',
  ),
  breaking: rule(
    'fuse-breaking',
    'stop',
    'The other strings drive more into a fault than the fuse of a string breaks',
    'A short inside one string is fed by all the others; a fuse beyond its breaking capacity bursts.',
    'A fuse with a larger breaking capacity, or fewer strings behind one pair of bars.',
    'All other strings, full and warm, into a short at the ends of one',
  ),
  overload: rule(
    'uneven-load',
    'mend',
    'A string carries more than its fuse takes for years',
    'Strings in parallel share by resistance and charge, not evenly: the best one works hardest.',
    'A larger fuse where the cable allows it, strings matched more closely, or a lower current limit.',
    'Shares over the load with the spread of resistance and charge; 80 % of the derated rating',
  ),
  lost: rule(
    'one-lost',
    'note',
    'With one string out the others carry more than their fuses take',
    'A fuse or contactor of one string that opens leaves the load to the others.',
    'Let the controller lower its current limit when a string is missing.',
    'The whole load over one string fewer',
  ),
};

/** Where the design does not say: how far strings differ in resistance, and in charge when they are joined. */
export const stringSpreadDefaults = {
  resistance: packDefaults.stringSpreadFraction,
  soc: packDefaults.stringSocFraction,
};

/**
 * The strings as they may differ: one has less resistance and more charge than all others.
 *
 * @param resistanceOhm of one string
 */
function spreadStrings(read: Reader, count: number, resistanceOhm: number): ParallelString[] | null {
  const ids = Object.values(read.at('strings')).find(({ modules }) => modules.length > 0)?.modules ?? [];
  const part = read.at('parts', read.at('modules', ids[0] ?? '')?.part ?? '');
  if (part?.kind !== 'module') return null;
  const settings = read.at('pack');
  const spread = settings.stringSpreadFraction ?? stringSpreadDefaults.resistance;
  const soc = settings.stringSocFraction ?? stringSpreadDefaults.soc;
  const { cell, cellsInSeries, cellsInParallel } = part.data;
  const series = ids.length * cellsInSeries;
  const high = settings.socHighFraction;
  if (high === undefined) return null;
  return Array.from({ length: count }, (_, k) => ({
    ocvTable: cell.ocvTable.map(([at, volts]): [number, number] => [at, volts * series]),
    capacityAh: cell.capacityAh * cellsInParallel,
    resistanceOhm: resistanceOhm * (k === 0 ? 1 - spread : 1 + spread),
    socFraction: k === 0 ? high : Math.max(0, high - soc),
  }));
}

/** A load of an hour at least: charge has the time to run apart. */
function anHour(profile: [number, number][]): [number, number][] {
  const periodS = profile.reduce((sum, [durationS]) => sum + durationS, 0);
  const times = Math.min(Math.max(1, Math.ceil(3600 / periodS)), 200);
  return Array.from({ length: times }, () => profile).flat();
}

/** Strings in parallel: what each carries, what the others drive into a fault in one, and what is left when one is lost. */
export const stringsStep: StepDefinition = {
  id: 'fuse.strings',
  version: 1,
  subjects: (design) => {
    const filled = Object.values(design.strings).filter(({ modules }) => modules.length > 0);
    return filled.length > 1 ? ['pack'] : [];
  },
  compute(subject, read) {
    const strings = Object.entries(read.at('strings')).filter(([, { modules }]) => modules.length > 0);
    const count = strings.length;
    const voltage = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const resistance = read.figure(stringResistance);
    const load = read.figure(figureId('network.load', mainCircuit, 'rmsA'));
    const main = read.at('circuits', mainCircuit);
    const settings = read.at('pack');
    const spread = settings.stringSpreadFraction ?? stringSpreadDefaults.resistance;
    const bad: Gap[] =
      spread >= 0 && spread < 1
        ? []
        : [
            {
              kind: 'invalid',
              path: 'pack.stringSpreadFraction',
              label: 'spread of the strings’ resistance',
              message: 'must be at least 0 and below 100 %',
            },
          ];
    const packGaps = [voltage, resistance].flatMap((figure) =>
      figure.value === null ? gapsBehind(figure) : [],
    );
    const noProfile: Gap[] =
      main?.loadProfile === undefined || main.loadProfile.length === 0
        ? [{ kind: 'not-given', path: `circuits.${mainCircuit}.loadProfile`, label: 'load profile' }]
        : load.value === null
          ? gapsBehind(load)
          : [];
    const warm = settings.warmResistanceFactor ?? resistanceFactors.warm;
    const faultA =
      packGaps.length > 0 || !(resistance.value! * warm > 0)
        ? null
        : (voltage.value! * (count - 1)) / (resistance.value! * warm);
    const noWindow: Gap[] =
      settings.socHighFraction === undefined
        ? [{ kind: 'not-given', path: 'pack.socHighFraction', label: 'top of the charge window' }]
        : [];
    const shareGaps = [...packGaps, ...noProfile, ...noWindow, ...bad];
    const set = shareGaps.length > 0 ? null : spreadStrings(read, count, resistance.value!);
    const shares: StringShare[] | null =
      set === null || set.some(({ resistanceOhm }) => !(resistanceOhm > 0))
        ? null
        : stringShares(set, anHour(main!.loadProfile!));
    const worst = shares?.[0] ?? null;
    const figure = (
      name: FigureName<'fuse.strings'>,
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      formula: string,
      inputs: Figure['working'][number]['inputs'],
    ): Figure => ({
      id: figureId('fuse.strings', subject, name),
      label,
      unit,
      value,
      gaps:
        value === null ? (gaps.length > 0 ? gaps : [{ kind: 'never', label: `${label}: not computed` }]) : [],
      working:
        value === null
          ? []
          : [
              {
                symbol: 'I',
                label,
                formula,
                inputs,
                value,
                unit,
                source: 'Equal voltage at the ends of all strings',
              },
            ],
    });
    const n = formatNumber;
    const fuses = strings.map(([id, { fuse, tag, fuseAmbientC }]) => {
      const part = fuse === undefined ? undefined : read.at('parts', fuse);
      return {
        id,
        tag,
        key: part?.kind === 'fuse' ? partKey(part) : null,
        data: part?.kind === 'fuse' ? part.data : null,
        ambientC: fuseAmbientC,
      };
    });
    const fuseGaps = fuses.flatMap(({ id, tag, data }): Gap[] =>
      data === null ? [{ kind: 'not-given', path: `strings.${id}.fuse`, label: `fuse of ${tag}` }] : [],
    );
    const mainC = main?.fuseAmbientC ?? circuitDefaults.fuseAmbientC;
    const each = (fails: (data: FuseData, ambientC: number) => string | null): string | null => {
      const found = fuses.flatMap(({ tag, data, ambientC = mainC }) => {
        const text = data === null ? null : fails(data, ambientC);
        return text === null ? [] : [`${tag}: ${text}`];
      });
      return found.length === 0 ? null : `${found.join('; ')}.`;
    };
    const parts = [...new Set(fuses.flatMap(({ key }) => key ?? []))];
    /** A number of each string’s fuse. */
    const own = (
      label: string,
      unit: string,
      of: (data: FuseData, ambientC: number) => number,
    ): CheckValue[] =>
      fuses.flatMap(({ tag, data, ambientC = mainC }) =>
        data === null ? [] : [{ label: `${label} of ${tag}`, value: of(data, ambientC), unit }],
      );
    const takesA = ({ ratedA, ambientDerating }: FuseData, ambientC: number) =>
      continuousShare * ratedA * derating({ ambientDerating, ambientC }).value;
    const lostA = load.value === null ? null : load.value / (count - 1);
    return {
      figures: [
        figure(
          'faultA',
          'The other strings into a fault in one',
          'A',
          faultA,
          packGaps,
          'V·(n − 1)/(R_s·f)',
          [
            { symbol: 'V', value: voltage.value ?? 0, unit: 'V', origin: { kind: 'figure', id: voltage.id } },
            {
              symbol: 'R_s',
              value: resistance.value ?? 0,
              unit: 'Ω',
              origin: { kind: 'figure', id: resistance.id },
            },
            { symbol: 'n', value: count, unit: '' },
            {
              symbol: 'f',
              value: warm,
              unit: '',
              origin: {
                kind: settings.warmResistanceFactor === undefined ? 'default' : 'document',
                path: 'pack.warmResistanceFactor',
              },
            },
          ],
        ),
        figure(
          'mostRmsA',
          'The hardest working string, rms',
          'A',
          worst?.rmsA ?? null,
          shareGaps,
          '√(Σ(I_k²·Δt)/T)',
          [],
        ),
        figure(
          'mostPeakA',
          'The hardest working string, peak',
          'A',
          worst?.peakA ?? null,
          shareGaps,
          'max |I_k|',
          [],
        ),
        figure(
          'circulatingA',
          'Circulates once the load is off',
          'A',
          worst === null ? null : Math.abs(worst.circulatingA),
          shareGaps,
          '|E_1 − E_2|/(R_1 + R_2)',
          [],
        ),
      ],
      checks: [
        judge(
          stringRules.voltage,
          [subject],
          [...fuseGaps, ...(voltage.value === null ? gapsBehind(voltage) : [])],
          each((data) =>
            voltage.value! > data.ratedVoltageV
              ? `rated ${n(data.ratedVoltageV)} V DC, the pack reaches ${n(voltage.value!)} V`
              : null,
          ),
          [
            { label: 'highest pack voltage', value: voltage.value ?? 0, unit: 'V' },
            ...own('rated voltage of the fuse', 'V', ({ ratedVoltageV }) => ratedVoltageV),
          ],
          { parts },
        ),
        judge(
          stringRules.breaking,
          [subject],
          [...fuseGaps, ...packGaps],
          each((data) =>
            (faultA ?? 0) > data.breakingA
              ? `breaks ${n(data.breakingA)} A, the other strings drive ${n(faultA!)} A`
              : null,
          ),
          [
            { label: 'fault in one string', value: faultA ?? 0, unit: 'A' },
            ...own('breaking capacity of the fuse', 'A', ({ breakingA }) => breakingA),
          ],
          { parts },
        ),
        judge(
          stringRules.overload,
          [subject],
          [...fuseGaps, ...shareGaps],
          worst === null
            ? null
            : each((data, ambientC) =>
                worst.rmsA > takesA(data, ambientC)
                  ? `its fuse takes ${n(takesA(data, ambientC))} A, the hardest working string carries ${n(worst.rmsA)} A rms`
                  : null,
              ),
          [
            { label: 'hardest working string', value: worst?.rmsA ?? 0, unit: 'A' },
            ...own('what the fuse takes', 'A', takesA),
          ],
          { parts },
        ),
        judge(
          stringRules.lost,
          [subject],
          [...fuseGaps, ...noProfile],
          lostA === null
            ? null
            : each((data, ambientC) =>
                lostA > takesA(data, ambientC)
                  ? `its fuse takes ${n(takesA(data, ambientC))} A, with one string out each carries ${n(lostA)} A rms`
                  : null,
              ),
          [
            { label: 'load with one string out', value: lostA ?? 0, unit: 'A' },
            ...own('what the fuse takes', 'A', takesA),
          ],
          { parts },
        ),
      ],
      ...(shares !== null && { run: { calculator: 'string-shares', input: set, result: shares } }),
    };
  },
};
