import { settingsDefaults } from '../../model/document';
import { rulesOf, type CheckValue } from '../../ground/finding';
import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import {
  highestAltitudeM,
  highestImpulseV,
  highestWorkingV,
  leastDistances,
  type DistanceInput,
} from './tables';

const rule = rulesOf('distances');
const source = 'IEC 60664-1, tables F.2, F.5 and A.2';

export const distanceRules = {
  clearance: rule(
    'clearance',
    'stop',
    'Live parts are too near through the air',
    'A surge jumps a gap that is too short, and the arc stays.',
    'A larger gap, a barrier that lengthens the way, or a surge limit that is proved.',
    source,
  ),
  creepage: rule(
    'creepage',
    'mend',
    'The way along the surface is too short',
    'Dirt and dew let a current creep along the surface until it has burnt a track.',
    'A longer way, a rib or slot, a material of a better group, or a cleaner box.',
    source,
  ),
};

export const lowVoltageRules = {
  clearance: rule(
    'low-voltage-clearance',
    'stop',
    'Live parts are too near to 12 or 24 V circuits through the air',
    'A surge that jumps this gap puts the pack onto every lamp, sensor and hand of the low-voltage side.',
    'The reinforced gap, or a grounded barrier between the two.',
    `${source}, reinforced`,
  ),
  creepage: rule(
    'low-voltage-creepage',
    'mend',
    'The way along the surface to 12 or 24 V circuits is too short',
    'A track that dirt and dew have burnt joins the pack with the low-voltage side.',
    'A longer way, a slot, or wires of the low-voltage side led apart.',
    `${source}, reinforced`,
  ),
};

const plausibleRules = {
  below: rule(
    'creepage-below-clearance',
    'mend',
    'The way along the surface is given shorter than the one through the air',
    'No surface is a shorter way than the air: one of the two was measured wrongly.',
    'Measure both again.',
    'IEC 60664-1: creepage is never less than clearance',
  ),
  material: rule(
    'material-excluded',
    'mend',
    'A material of group IIIb where it is conducting dirt above 630 V',
    'The standard gives no creepage way for it there.',
    'A material of a better group, or a cleaner box.',
    'IEC 60664-1, table F.5',
  ),
};

/** Where the design does not say. */
export const distanceDefaults = {
  impulseV: settingsDefaults.impulseV,
  pollution: 2,
  material: 'IIIa',
  altitudeM: settingsDefaults.altitudeM,
} as const;

type DistanceField = 'clearanceMm' | 'creepageMm' | 'lowVoltageGapMm' | 'lowVoltageCreepMm';

function inputOf(read: Reader, box: string, workingV: number): DistanceInput {
  const settings = read.at('settings');
  const { pollution, material } = read.at('boxes', box)!;
  return {
    workingV,
    impulseV: settings.impulseV ?? distanceDefaults.impulseV,
    altitudeM: settings.altitudeM ?? distanceDefaults.altitudeM,
    pollution: pollution ?? distanceDefaults.pollution,
    material: material ?? distanceDefaults.material,
  };
}

/** Clearance and creepage in each box against what its voltage, dirt and height ask. */
export const distanceSteps: StepDefinition[] = [
  {
    id: 'distances.box',
    version: 1,
    subjects: (design) => Object.keys(design.boxes),
    compute(subject, read) {
      const box = read.at('boxes', subject)!;
      const settings = read.at('settings');
      const at = `boxes.${subject}`;
      const voltage = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
      const input = inputOf(read, subject, voltage.value ?? 0);
      const outside: Gap[] = [
        ...(input.altitudeM > highestAltitudeM || input.altitudeM < -500
          ? [
              {
                kind: 'invalid' as const,
                path: 'settings.altitudeM',
                label: 'altitude',
                message: `must lie between -500 and ${highestAltitudeM} m`,
              },
            ]
          : []),
        ...(input.impulseV > highestImpulseV || !(input.impulseV > 0)
          ? [
              {
                kind: 'invalid' as const,
                path: 'settings.impulseV',
                label: 'impulse voltage',
                message: `must be above 0 and at most ${highestImpulseV} V`,
              },
            ]
          : []),
        ...(input.workingV > highestWorkingV
          ? [{ kind: 'needs' as const, figure: voltage.id, label: `a pack of at most ${highestWorkingV} V` }]
          : []),
      ];
      const gaps = [...(voltage.value === null ? gapsBehind(voltage) : []), ...outside];
      const basic = gaps.length > 0 ? null : leastDistances(input, false);
      const reinforced = gaps.length > 0 ? null : leastDistances(input, true);
      const origin = (given: unknown, path: string) => ({
        kind: given === undefined ? ('default' as const) : ('document' as const),
        path,
      });
      const inputs: Figure['working'][number]['inputs'] = [
        { symbol: 'V', value: input.workingV, unit: 'V', origin: { kind: 'figure', id: voltage.id } },
        {
          symbol: 'V_i',
          value: input.impulseV,
          unit: 'V',
          origin: origin(settings.impulseV, 'settings.impulseV'),
        },
        { symbol: 'P', value: input.pollution, unit: '', origin: origin(box.pollution, `${at}.pollution`) },
        {
          symbol: 'h',
          value: input.altitudeM,
          unit: 'm',
          origin: origin(settings.altitudeM, 'settings.altitudeM'),
        },
      ];
      const figure = (
        name: FigureName<'distances.box'>,
        label: string,
        value: number | null,
        formula: string,
      ): Figure => ({
        id: figureId('distances.box', subject, name),
        label,
        unit: 'mm',
        value,
        gaps: value === null ? gaps : [],
        working: value === null ? [] : [{ symbol: 'd', label, formula, inputs, value, unit: 'mm', source }],
      });
      const missing = (field: DistanceField, label: string): Gap[] =>
        box[field] === undefined
          ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} in ${box.tag}` }]
          : [];
      const n = formatNumber;
      const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
      const clearanceWords = () => {
        const { clearanceBy, altitudeFactor } = basic!;
        const high = altitudeFactor > 1 ? ` at ${n(input.altitudeM)} m, where air holds less,` : '';
        return clearanceBy === 'pollution'
          ? `pollution degree ${input.pollution}, for a surge of only ${n(input.impulseV)} V${high}`
          : `a surge of ${n(input.impulseV)} V${high}`;
      };
      const creepageWords = () =>
        basic!.creepageBy === 'clearance'
          ? `${clearanceWords()} asks for a clearance of ${n(basic!.creepageMm)} mm, and creepage is never less`
          : `${n(input.workingV)} V at pollution degree ${input.pollution} along material of group ${input.material} ask for ${n(basic!.creepageMm)} mm`;
      const check = (
        which: keyof typeof distanceRules,
        field: 'clearanceMm' | 'creepageMm',
        word: string,
        asks: () => string,
      ) => {
        const least = basic?.[field] ?? null;
        const own = box[field];
        const short = least !== null && own !== undefined && own < least * (1 - 1e-9);
        return judge(
          distanceRules[which],
          [subject],
          [...gaps, ...missing(field, word)],
          short ? `${box.tag}: the least ${word} is ${n(own)} mm; ${asks()}.` : null,
          [
            v(word, own ?? 0, 'mm'),
            v(`${word} asked`, least ?? 0, 'mm'),
            v('surge', input.impulseV, 'V'),
            v('altitude', input.altitudeM, 'm'),
            v('pollution degree', input.pollution, ''),
            ...(which === 'creepage' ? [v('highest pack voltage', input.workingV, 'V')] : []),
          ],
        );
      };
      const lowVoltage = (
        which: keyof typeof lowVoltageRules,
        field: DistanceField,
        word: string,
        least: number | null,
      ) => {
        const own = box[field];
        const short = least !== null && own !== undefined && own < least * (1 - 1e-9);
        return judge(
          lowVoltageRules[which],
          [subject],
          [...gaps, ...missing(field, word)],
          short
            ? `${box.tag}: the ${word} is ${n(own)} mm; reinforced insulation asks for ${n(least)} mm.`
            : null,
          [
            v(word, own ?? 0, 'mm'),
            v(`${word} asked`, least ?? 0, 'mm'),
            v('highest pack voltage', input.workingV, 'V'),
            v('surge', input.impulseV, 'V'),
          ],
        );
      };
      return {
        figures: [
          figure('clearanceMm', 'Clearance asked', basic?.clearanceMm ?? null, 'table(V_i, P)·f(h)'),
          figure(
            'creepageMm',
            'Creepage asked',
            basic?.creepageMm ?? null,
            'max(table(V, P, material), clearance)',
          ),
          figure(
            'reinforcedClearanceMm',
            'Clearance to 12 V circuits',
            reinforced?.clearanceMm ?? null,
            'table(next above V_i, P)·f(h)',
          ),
          figure(
            'reinforcedCreepageMm',
            'Creepage to 12 V circuits',
            reinforced?.creepageMm ?? null,
            'max(2·table(V, P, material), clearance)',
          ),
        ],
        checks: [
          check(
            'clearance',
            'clearanceMm',
            'clearance',
            () => `${clearanceWords()} asks for ${n(basic!.clearanceMm)} mm`,
          ),
          check('creepage', 'creepageMm', 'creepage', creepageWords),
          lowVoltage(
            'clearance',
            'lowVoltageGapMm',
            'clearance to low voltage',
            reinforced?.clearanceMm ?? null,
          ),
          lowVoltage(
            'creepage',
            'lowVoltageCreepMm',
            'creepage to low voltage',
            reinforced?.creepageMm ?? null,
          ),
          judge(
            plausibleRules.below,
            [subject],
            [...missing('clearanceMm', 'clearance'), ...missing('creepageMm', 'creepage')],
            (box.creepageMm ?? 0) < (box.clearanceMm ?? 0)
              ? `${box.tag}: creepage ${n(box.creepageMm ?? 0)} mm, clearance ${n(box.clearanceMm ?? 0)} mm.`
              : null,
            [v('creepage', box.creepageMm ?? 0, 'mm'), v('clearance', box.clearanceMm ?? 0, 'mm')],
          ),
          judge(
            plausibleRules.material,
            [subject],
            voltage.value === null ? gapsBehind(voltage) : [],
            box.material === 'IIIb' && input.pollution === 3 && input.workingV > 630
              ? `${box.tag}: group IIIb at pollution degree 3 and ${n(input.workingV)} V.`
              : null,
            [v('highest pack voltage', input.workingV, 'V'), v('pollution degree', input.pollution, '')],
          ),
        ],
      };
    },
  },
];
