import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { lowVoltageDefaults } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { carriesByAreaA } from './feed-cable';
import { lowVoltageRules } from './rules';
import { fedV, lowVoltageSystem } from './system';
import { wireDropV } from './wire-12v';

const n = formatNumber;
const subject = 'vehicle';
/** Class of the insulation that is counted on, °C. */
const insulationC = 90;

const gap = (path: string, label: string): Gap => ({ kind: 'not-given', path: `lowVoltage.${path}`, label });

/** The cable between what feeds the low voltage and its battery: each end has a source of its own. */
export const sourceStep: StepDefinition = {
  id: 'low-voltage.source',
  version: 1,
  subjects: ({ lowVoltage }) => (lowVoltage === undefined ? [] : [subject]),
  compute(_subject, read) {
    const settings = read.at('lowVoltage')!;
    const { school, mainsChargerA, sourceAreaMm2, sourceLengthM, sourceFuseA, batteryFuseA } = settings;
    const system = lowVoltageSystem({
      lowVoltage: settings,
      parts: read.at('parts'),
      settings: read.at('settings'),
    });
    const ambientC = settings.ambientC ?? lowVoltageDefaults.ambientC;
    const converterA = school === 'mains charger' ? null : system.converterA;
    const chargerA = school === 'converter' ? null : (mainsChargerA ?? null);
    // Of two sources both must be known: the larger one counts.
    const noCurrent: Gap[] = [
      ...(converterA === null && school !== 'mains charger' && (school !== undefined || chargerA === null)
        ? [gap('converter', 'converter')]
        : []),
      ...(chargerA === null && (school === 'mains charger' || school === 'both')
        ? [gap('mainsChargerA', 'what the mains charger gives')]
        : []),
    ];
    const currentA = noCurrent.length > 0 ? null : Math.max(converterA ?? 0, chargerA ?? 0);
    const source = (chargerA ?? 0) > (converterA ?? 0) ? 'mains charger' : 'converter';
    const carriesA =
      sourceAreaMm2 === undefined ? null : carriesByAreaA(sourceAreaMm2, ambientC, insulationC);
    const dropV =
      currentA === null || sourceAreaMm2 === undefined || sourceLengthM === undefined
        ? null
        : wireDropV(sourceAreaMm2, currentA, 2 * sourceLengthM);
    const dropAllowedV = fedV(system) * (settings.maxDropFraction ?? lowVoltageDefaults.maxDropFraction);
    const noArea: Gap[] =
      sourceAreaMm2 === undefined ? [gap('sourceAreaMm2', 'cable from source to battery')] : [];
    const noLength: Gap[] =
      sourceLengthM === undefined ? [gap('sourceLengthM', 'length of the cable from source to battery')] : [];
    const fuses = [
      { at: 'at the source', path: 'sourceFuseA', value: sourceFuseA },
      { at: 'at the battery', path: 'batteryFuseA', value: batteryFuseA },
    ] as const;
    const given = fuses.filter(({ value }) => value !== undefined);
    // Nothing said of the cable at all: then it is unknown, not unfused.
    const unsaid = given.length === 0 && sourceAreaMm2 === undefined && sourceLengthM === undefined;
    const figure = (
      name: 'currentA' | 'carriesA' | 'dropV',
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      formula: string,
      from: string,
    ): Figure => ({
      id: figureId('low-voltage.source', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? gaps : [],
      working: value === null ? [] : [{ symbol: 'x', label, formula, inputs: [], value, unit, source: from }],
    });
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const tooHot = currentA !== null && carriesA !== null && currentA > carriesA * (1 + 1e-9);
    const dropsTooFar = dropV !== null && dropV > dropAllowedV * (1 + 1e-9);
    const wrong = given.flatMap(({ at, value }) => {
      if (currentA !== null && value! < currentA * (1 - 1e-9))
        return [`${n(value!)} A ${at} for ${n(currentA)} A of the ${source}`];
      // A cable that is too thin for the source itself is told as that.
      if (carriesA !== null && !tooHot && value! > carriesA * (1 + 1e-9))
        return [`${n(value!)} A ${at} on a cable that carries ${n(carriesA)} A`];
      return [];
    });
    return {
      figures: [
        figure(
          'currentA',
          'Most that the source gives the low voltage',
          'A',
          currentA,
          noCurrent,
          'max I',
          'Converter or mains charger, as typed or by its sheet',
        ),
        figure(
          'carriesA',
          'What the cable from source to battery carries',
          'A',
          carriesA,
          noArea,
          'I₃₀·√((90 − t)/60)',
          'Current in free air at 30 °C, insulation for 90 °C; above 35 mm² by the heat balance of two cables side by side',
        ),
        figure(
          'dropV',
          'Drop between source and battery, there and back',
          'V',
          dropV,
          [...noCurrent, ...noArea, ...noLength],
          'I·r·2l',
          'Copper at 60 °C; the return as long and as thick',
        ),
      ],
      checks: [
        judge(
          lowVoltageRules.sourceEnds,
          [subject],
          unsaid ? fuses.map(({ path, at }) => gap(path, `fuse ${at}`)) : [],
          given.length < 2
            ? `${n(given.length)} of 2 ends has a fuse; ${fuses
                .filter(({ value }) => value === undefined)
                .map(({ at }) => at)
                .join(' and ')} there is none.`
            : null,
          [v('fuses', given.length, ''), v('ends', 2, '')],
        ),
        judge(
          lowVoltageRules.sourceThin,
          [subject],
          [...noCurrent, ...noArea, ...noLength],
          tooHot
            ? `The ${source} gives ${n(currentA)} A; ${n(sourceAreaMm2!)} mm² carry ${n(carriesA)} A.`
            : dropsTooFar
              ? `Over ${n(sourceLengthM!)} m of ${n(sourceAreaMm2!)} mm² there and back ${n(dropV)} V are lost; ${n(dropAllowedV)} V are allowed.`
              : null,
          [
            v('the source gives', currentA ?? 0, 'A'),
            v('area of the cable', sourceAreaMm2 ?? 0, 'mm²'),
            v('the cable carries', carriesA ?? 0, 'A'),
            v('length of the cable', sourceLengthM ?? 0, 'm'),
            v('drop there and back', dropV ?? 0, 'V'),
            v('drop allowed', dropAllowedV, 'V'),
          ],
        ),
        judge(
          lowVoltageRules.sourceFuse,
          [subject],
          [...noCurrent, ...noArea, ...(unsaid ? fuses.map(({ path, at }) => gap(path, `fuse ${at}`)) : [])],
          wrong.length > 0 ? `${wrong.join('; ')}.` : null,
          [
            v('the source gives', currentA ?? 0, 'A'),
            v('the cable carries', carriesA ?? 0, 'A'),
            ...given.map(({ at, value }) => v(`fuse ${at}`, value!, 'A')),
          ],
        ),
      ],
    };
  },
};
