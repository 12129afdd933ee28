import { rulesOf, type Rule } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { circuitDefaults, everyCircuit, settingsDefaults } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';

const rule = rulesOf('norms');
const loosened =
  'What is judged by it is judged too mildly: a finding that should be there is not, and nobody sees why.';

export const normRules = {
  touch: rule(
    'touch-limit',
    'stop',
    'The touch limit is above 60 V DC',
    'Above 60 V DC live parts are dangerous to touch: segments, discharge and gates of the procedure all go by this limit.',
    'At most 60 V; a local rule may ask for less.',
    'ISO 6469-3: voltage class B begins above 60 V DC',
  ),
  discharge: rule(
    'discharge-time',
    'mend',
    'The bus may take longer to fall than is usual',
    loosened,
    'A few seconds; what takes longer needs a cover that cannot be opened in that time, and a label that says so.',
    'ISO 6469-3, UN R100: below 60 V DC within seconds, or parts that cannot be reached',
  ),
  insulation: rule(
    'insulation',
    'mend',
    'Less insulation is asked than the norm does',
    loosened,
    'At least 500 Ω/V where an inverter joins AC to the bus, and never below 100 Ω/V.',
    'ISO 6469-3, UN R100: 100 Ω/V for DC, 500 Ω/V where AC is joined to it',
  ),
  impulse: rule(
    'surge',
    'mend',
    'The surge that may come through is smaller than any mains lets through',
    loosened,
    'At least 1500 V for a charger on the mains of a house; what its maker says, if that is more.',
    'IEC 60664-1, overvoltage categories',
  ),
  startLow: rule(
    'start-voltage',
    'note',
    'The low voltage is said to hold up at every start',
    'An old battery on a cold morning goes below 10 V: coils that were judged by more do not pull in then.',
    'Measure it on a cold start, or go by 9 V.',
    'Practice: 9 V at the coils of a 12 V system',
  ),
  anchors: rule(
    'anchor-load',
    'mend',
    'Anchors are judged by less than a crash',
    'A box of cells that comes loose is a missile; less than a few g is not even hard braking.',
    'What the rule of the place asks, often 8 to 20 g along the vehicle.',
    'Local rules for the fastening of batteries; they come first',
  ),
  clear: rule(
    'clearing-time',
    'mend',
    'A fault may flow for longer than cables are made for',
    loosened,
    'At most 5 s, for which the adiabatic limit of a conductor holds.',
    'IEC 60364-4-43: the adiabatic limit holds up to 5 s',
  ),
  drop: rule(
    'voltage-drop',
    'mend',
    'More voltage may be lost in a cable than is reasonable',
    loosened,
    'Two or three per cent at the load in the mean square.',
    'Practice of the trade',
  ),
  threshold: rule(
    'threshold',
    'mend',
    'The main closes with much of the voltage still missing',
    'What is missing flows through the contacts at once: they wear with each start, and weld in the end.',
    'At least 90 %, better 95 % of the pack’s voltage.',
    'Practice of the trade; contactor makers’ making capacity comes first',
  ),
};

interface Bound {
  rule: Rule;
  label: string;
  unit: string;
  value: number | undefined;
  least?: number;
  most?: number;
  /** For the sentence, when the unit is not that of the value. */
  scale?: number;
}

const n = formatNumber;
const boundCheck = (
  gaps: Gap[],

  subject: string,
  { rule: of, label, unit, value, least, most, scale = 1 }: Bound,
): Check => {
  const [low, high] = [least ?? -Infinity, most ?? Infinity];
  const off = value !== undefined && (value < low || value > high);
  const limit = value !== undefined && value < low ? low : high;
  return judge(
    of,
    [subject],
    gaps,
    off
      ? `${label} is set to ${n(value * scale)} ${unit}; ${n(limit * scale)} ${unit} is the ${limit === low ? 'least' : 'most'} that is usual.`
      : null,
    [
      { label, value: (value ?? 0) * scale, unit },
      { label: `${label}, usual limit`, value: (least ?? most ?? 0) * scale, unit },
    ],
  );
};

/** What the whole job is judged by, against what norms and the trade go by. */
const settingsStep: StepDefinition = {
  id: 'norms.settings',
  version: 1,
  subjects: () => ['pack'],
  compute(subject, read) {
    const s = read.at('settings');
    const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const gaps = highest.value === null ? gapsBehind(highest) : [];
    const devices = read.at('devices');
    const inverter = Object.values(devices).some(({ kind }) => kind === 'inverter');
    const bounds: Bound[] = [
      {
        rule: normRules.touch,
        label: 'The touch limit',
        unit: 'V',
        value: s.touchLimitV,
        most: settingsDefaults.touchLimitV,
      },
      { rule: normRules.discharge, label: 'The time to fall', unit: 's', value: s.dischargeLimitS, most: 10 },
      { rule: normRules.impulse, label: 'The surge', unit: 'V', value: s.impulseV, least: 800 },
      {
        rule: normRules.startLow,
        label: 'The lowest voltage at a start',
        unit: 'V',
        value: s.startLowV,
        most: 10.5,
      },
      { rule: normRules.anchors, label: 'The load of the anchors', unit: 'g', value: s.anchorG, least: 3 },
    ];
    const insulation: Bound = {
      rule: normRules.insulation,
      label: 'The insulation asked',
      unit: 'Ω/V',
      value: s.insulationOhmPerV,
      least: inverter ? 500 : 100,
    };
    // Below the touch limit nobody asks for insulation.
    const low = highest.value !== null && highest.value <= settingsDefaults.touchLimitV;
    return {
      figures: [],
      checks: [
        ...bounds.map((bound) => boundCheck(gaps, subject, bound)),
        boundCheck(gaps, subject, low ? { ...insulation, value: undefined } : insulation),
      ],
    };
  },
};

/** The same of each circuit. */
const circuitsStep: StepDefinition = {
  id: 'norms.circuits',
  version: 1,
  subjects: () => ['circuits'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const circuits = read.at('circuits');
    const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const gaps = highest.value === null ? gapsBehind(highest) : [];
    const percent = { unit: '%', scale: 100 };
    const checks = everyCircuit({ circuits }).flatMap((id) => {
      const { role, resistor, maxClearS, maxDropFraction, thresholdFraction } = circuits[id]!;
      const { clear, drop, threshold } = normRules;
      const bounds: Bound[] = [
        {
          rule: clear,
          label: 'The time to clear',
          unit: 's',
          value: maxClearS,
          most: circuitDefaults.maxClearS,
        },
        { rule: drop, label: 'The drop allowed', ...percent, value: maxDropFraction, most: 0.05 },
      ];
      if (role === 'main' || resistor !== undefined)
        bounds.push({
          rule: threshold,
          label: 'The threshold',
          ...percent,
          value: thresholdFraction,
          least: 0.9,
        });
      return bounds.map((bound) => boundCheck(gaps, id, bound));
    });
    return { figures: [], checks };
  },
};

export const normSteps: StepDefinition[] = [settingsStep, circuitsStep];
