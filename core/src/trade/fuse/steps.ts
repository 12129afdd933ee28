import { sumStep } from './sum-step';
import { tapStep } from './tap-step';
import { formatNumber } from '../../ground/quantity';
import { everyCircuit } from '../../model/document';
import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import { packCold, packLowest, packWarm } from '../pack';
import { catalogueOf, partKey, type PartOf } from '../../model/parts';
import {
  criteriaChecks,
  gapsBehind,
  Inputs,
  type Reader,
  type StepDefinition,
  judge,
} from '../../model/step';
import { fuseNeeds, fuseReplacements, type DownstreamFuse, type FusePlace } from './choose';
import { faultCurrent } from './fault-current';
import { fuse, type FuseInput, type FuseResult } from './fuse';
import { inrushStep } from './inrush';
import { defaultMaxClearS, derating } from './limits';
import { fuseOwnCriteria } from './own-criteria';
import { fuseRules } from './rules';
import { selectiveStep, upstreamOf } from './selective';
import { stringsStep } from './strings';

/** Largest fault: full, warm, at the pack. Smallest: low charge, cold, far end of the cable. */
const faultStep: StepDefinition = {
  id: 'fuse.fault',
  version: 1,
  subjects: (design) => everyCircuit(design).flatMap((id) => [`${id}/largest`, `${id}/smallest`]),
  compute(subject, read) {
    const [circuitId = '', which] = subject.split('/');
    const largest = which === 'largest';
    const inputs = new Inputs(read);
    if (largest) {
      inputs.figure('sourceVoltageV', figureId('pack.pack', 'pack', 'voltageMaxV'));
      inputs.figure('sourceResistanceOhm', packWarm);
      inputs.set('pathResistanceOhm', 0, { kind: 'constant', source: 'a short right at the pack' });
    } else {
      inputs.figure('sourceVoltageV', packLowest);
      inputs.figure('sourceResistanceOhm', packCold);
      const loop = read.figure(figureId('conductor.loop', circuitId, 'loopOhm'));
      if (loop.value === null) inputs.missing(...gapsBehind(loop));
      else inputs.set('pathResistanceOhm', loop.value, { kind: 'figure', id: loop.id }, loop.label);
    }
    const run = inputs.run(faultCurrent);
    const figures = run.figures('fuse.fault', subject, [
      { name: 'prospectiveA', symbol: 'I', label: largest ? 'Largest fault' : 'Smallest fault', unit: 'A' },
      { name: 'timeConstantS', symbol: 'τ', label: `Time constant of the ${which} fault`, unit: 's' },
    ]);
    return run.output(figures, run.checks([subject]));
  },
};

/** Everything a fuse of this circuit is judged by, apart from the fuse itself. */
function circuitInputs(subject: string, read: Reader): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const inputs = new Inputs(read);
  inputs.figure('busVoltageV', figureId('pack.pack', 'pack', 'voltageMaxV'));
  inputs.figure('faultMinA', figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
  inputs.figure('faultMaxA', figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
  inputs.orDefault(
    'maxClearS',
    circuit.maxClearS,
    defaultMaxClearS,
    `${at}.maxClearS`,
    'longest clearing time',
  );
  inputs.optional('ambientC', circuit.fuseAmbientC, `${at}.fuseAmbientC`, 'ambient at the fuse');
  inputs.given('loadProfile', circuit.loadProfile, `${at}.loadProfile`, 'load profile');
  const cable = circuit.cable === undefined ? undefined : read.at('parts', circuit.cable);
  if (cable?.kind !== 'cable') inputs.missing({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
  else {
    const key = partKey(cable);
    inputs.set(
      'cable.areaMm2',
      cable.data.areaMm2,
      { kind: 'part', key, path: 'areaMm2' },
      'area of the cable',
    );
    inputs.set('cable.k', cable.data.adiabaticK, { kind: 'part', key, path: 'adiabaticK' }, 'k of the cable');
  }
  return inputs;
}

function setFuse(inputs: Inputs, part: PartOf<'fuse'>): void {
  const key = partKey(part);
  for (const [name, value] of Object.entries(part.data)) {
    inputs.set(name, value, { kind: 'part', key, path: name }, `${name} of ${part.label}`);
  }
}

/** What a held derating rests on. */
const deratingValues = (input: FuseInput | null) =>
  input === null
    ? []
    : [
        { label: 'ambient at the fuse', value: input.ambientC, unit: '°C' },
        { label: 'factor held', value: derating(input).value, unit: '' },
      ];

/** What else has to live with the fuse of a circuit: fuses above and below it, contacts, an inrush. */
function placeOf(subject: string, read: Reader, circuit: FuseInput): FusePlace {
  const own = read.at('circuits', subject)!;
  const contactor = read.at('parts', own.contactor ?? '');
  const pulse = read.figure(figureId('precharge.direct', subject, 'i2tA2s'));
  return {
    circuit,
    upstream:
      own.role === 'branch'
        ? upstreamOf(
            { circuits: read.at('circuits'), strings: read.at('strings'), parts: read.at('parts') },
            subject,
          )
        : [],
    downstream: own.role === 'main' ? downstreamOf(read) : [],
    shortTime: contactor?.kind === 'contactor' ? (contactor.data.shortTime ?? null) : null,
    inrushA2s: pulse.value,
  };
}

/** The fuses of branches behind the mains, with the faults each has to clear before the main fuse melts. */
function downstreamOf(read: Reader): DownstreamFuse[] {
  return Object.entries(read.at('circuits')).flatMap(([id, { role, tap, fuse: key, tag }]) => {
    const part = read.at('parts', key ?? '');
    if (role !== 'branch' || tap === 'before' || part?.kind !== 'fuse') return [];
    const fault = (which: string) =>
      read.figure(figureId('fuse.fault', `${id}/${which}`, 'prospectiveA')).value;
    const [faultMinA, faultMaxA] = [fault('smallest'), fault('largest')];
    return faultMinA === null || faultMaxA === null
      ? []
      : [{ label: `the fuse of ${tag}`, data: part.data, faultMinA, faultMaxA }];
  });
}

const mainFuseStep: StepDefinition = {
  id: 'fuse.main',
  version: 2,
  subjects: everyCircuit,
  compute(subject, read) {
    const key = read.at('circuits', subject, 'fuse');
    const part = key === undefined ? undefined : read.at('parts', key);
    const chosen = part?.kind === 'fuse' ? part : null;
    const inputs = circuitInputs(subject, read);
    if (chosen === null)
      inputs.missing({ kind: 'not-given', path: `circuits.${subject}.fuse`, label: 'fuse' });
    else setFuse(inputs, chosen);
    const run = inputs.run(fuse);
    const { result, input } = run;
    const figure = (
      name: FigureName<'fuse.main'>,
      label: string,
      unit: string,
      value: number | null | undefined,
      symbol: string,
      limit?: Figure['limit'],
    ): Figure => {
      const never: Gap[] =
        result !== null && value === null ? [{ kind: 'never', label: `${label}: never` }] : [];
      return {
        id: figureId('fuse.main', subject, name),
        label,
        unit,
        value: value ?? null,
        gaps: result === null ? run.gaps : never,
        working: run.working(symbol),
        ...(limit && { limit }),
      };
    };
    const clearing = run.outcome?.working.find(({ symbol }) => symbol === 't_c')?.value;
    const figures = [
      figure('rmsFraction', 'Load over derated rating', 'fraction', result?.rmsFraction, 'u', { max: 0.8 }),
      figure(
        'clearAtMinS',
        'Clearing of the smallest fault',
        's',
        clearing,
        't_c',
        input === null ? undefined : { max: input.maxClearS },
      ),
      figure('meltAtMaxS', 'Slowest melting, largest fault', 's', result?.meltAtMaxFault.slowestS, 't_f'),
      figure('wearPerPeriod', 'Wear per period', 'fraction', result?.wearPerPeriod, 'D'),
    ];
    const noted = run
      .checks([subject], deratingValues(input), key === undefined ? [] : [key])
      .filter(({ rule }) => rule === fuseRules.deratingHeld);
    if (input === null || result === null || chosen === null)
      return run.output(figures, run.checks([subject]));
    const criteria = fuseOwnCriteria(input, result).map((one) =>
      one.rule === fuseRules.cable ? { ...one, with: [read.at('circuits', subject, 'cable')!] } : one,
    );
    const checks = criteriaChecks(criteria, {
      subjects: [subject],
      partKey: key!,
      label: chosen.label,
      replacements: () => {
        const place = placeOf(subject, read, input);
        const parts = read.parts('fuse');
        const { data } = chosen;
        return () => ({
          suggestions: fuseReplacements(
            place,
            parts.filter((one) => partKey(one) !== key),
          ),
          needs: fuseNeeds(place, data),
        });
      },
    });
    const lastC = Math.max(...chosen.data.ambientDerating.map(([celsius]) => celsius));
    const hot = input.ambientC > lastC;
    const hotter = judge(
      fuseRules.hotter,
      [subject],
      [],
      hot
        ? `${chosen.label} sits at ${formatNumber(input.ambientC)} °C; its table ends at ${formatNumber(lastC)} °C.`
        : null,
      [
        { label: 'ambient at the fuse', value: input.ambientC, unit: '°C' },
        { label: 'end of the table', value: lastC, unit: '°C' },
      ],
      { parts: [key!] },
    );
    // One cause is one finding.
    return run.output(figures, [...checks, ...(hot ? [] : noted), hotter]);
  },
};

/** The place for which all fuses are ranked, whether one is chosen or not; the ranking is made on request. */
const fuseChoiceStep: StepDefinition = {
  id: 'fuse.choice',
  version: 2,
  subjects: everyCircuit,
  compute(subject, read) {
    const inputs = circuitInputs(subject, read);
    setFuse(inputs, catalogueOf('fuse')[0]!);
    const run = inputs.run<FuseInput, FuseResult>(fuse);
    if (run.input === null) return { figures: [], checks: [] };
    return {
      figures: [],
      checks: [],
      run: { calculator: 'fuse-choice', input: placeOf(subject, read, run.input), result: null },
    };
  },
};

export const fuseSteps: StepDefinition[] = [
  sumStep,
  faultStep,
  mainFuseStep,
  fuseChoiceStep,
  inrushStep,
  selectiveStep,
  stringsStep,
  tapStep,
];
