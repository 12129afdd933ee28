import { touchLimitOf, type Id, circuitDefaults, settingsDefaults } from '../../../model/document';
import { figureId, type Gap, type FigureName } from '../../../ground/figure';
import { busOf, mainBus, prechargedCircuits } from '../bus-step';
import { capacitanceTolerance } from '../sequence';
import { formatNumber } from '../../../ground/quantity';
import {
  defineTemplates,
  slips,
  type Builder,
  type Expectation,
  type Procedure,
} from '../../../model/procedure';
import { busSubject, onBus } from './bus';
import { deadBusCauses, packCauses } from './pack-causes';
import { dischargeCauses, riseCauses } from './rise-causes';

const packFigure = (name: FigureName<'pack.pack'>) => figureId('pack.pack', 'pack', name);

const templates = defineTemplates({
  'bus-dead': { reads: (_, near) => near(0.4, 0.5), causes: deadBusCauses },
  polarity: {
    reads: ({ evaluation }, near) =>
      near(evaluation.figures[packFigure('voltageNominalV')]?.value ?? 0, 0.004),
    causes: (of, value) => [...slips(of, value), ...packCauses(of)],
  },
  'precharge-time': { causes: riseCauses },
  'precharge-curve': { causes: riseCauses },
  'stop-discharge': { causes: dischargeCauses },
});

/** Steps by which a bus was seen dead: before the last link, and after a stop. */
export const provesDead = [templates['bus-dead'], templates['stop-discharge']];

/** The bus dead before the last link, then the pack’s polarity at the mains. */
function polarity(builder: Builder): void {
  const { design } = builder;
  const limit = touchLimitOf(design);
  builder.add({
    template: templates['bus-dead'],
    of: 'bus',
    gate: 'first-hv',
    title: 'Bus proved dead before the last link',
    do: 'Service disconnect out. Measure bus + to bus −, and each pole to chassis; prove the meter before and after.',
    why: 'The last link is closed onto a bus that is known to be empty, or not at all.',
    hazard: 'isolated',
    instrument: 'meter',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: -limit, max: limit, nominal: 0, unit: 'V' },
    gaps: [],
    basis: [builder.row('settings.touchLimitV', 'touch limit', limit, 'V')],
  });
  const pack = builder.figures(packFigure('voltageMinV'), packFigure('voltageMaxV'));
  builder.add({
    template: templates['polarity'],
    of: 'pack',
    gate: 'first-hv',
    title: 'Polarity and voltage at the main contactors',
    do: 'Last link closed, mains open. Measure from pack − to pack + on the pack’s side of the main contactors.',
    why: 'A swapped pole destroys every device on the bus the moment pre-charge begins; polarised contactors do not break backwards.',
    hazard: 'live',
    instrument: 'meter',
    subjects: [{ id: 'pack', tag: 'pack' }],
    touchedBy: [
      ...Object.keys(design.strings),
      ...Object.keys(design.modules),
      ...Object.keys(design.circuits).filter((id) => design.circuits[id]!.role === 'main'),
    ],
    range: { kind: 'range', min: pack.values[0]!, max: pack.values[1]!, unit: 'V' },
    gaps: pack.gaps,
    basis: pack.basis,
  });
}

/** How far a timer may be off. */
const timerTolerance = 0.1;

/** A circuit’s first pre-charge with its curve, and its first stop. */
function firstHv(builder: Builder, id: Id): void {
  const { design } = builder;
  const bus = busOf(design, id);
  prechargeTime(builder, id, bus);
  prechargeCurve(builder, id, bus);
  const circuit = design.circuits[id]!;
  const discharge = builder.figures(figureId('precharge.discharge', bus, 'timeToSafeS'));
  const limitS = design.settings.dischargeLimitS ?? settingsDefaults.dischargeLimitS;
  const safeS = discharge.values[0]!;
  const upTo = Math.min(safeS * (1 + 0.1 + capacitanceTolerance), limitS);
  const below = `${formatNumber(touchLimitOf(design))} V`;
  builder.add({
    template: templates['stop-discharge'],
    of: id,
    gate: 'first-hv',
    title:
      bus === mainBus ? `Stop: time to below ${below}` : `Stop of ${circuit.tag}: time to below ${below}`,
    do: 'Switch off. Take the time from the main opening until the bus has fallen below the touch limit.',
    why: 'A bus that stays charged longer is met by the next person who opens the vehicle; one that does not fall is a welded contactor.',
    hazard: 'live',
    instrument: 'scope',
    subjects: [busSubject(builder, bus)],
    touchedBy: [id, ...onBus(builder, bus)],
    range: { kind: 'range', min: 0, max: Math.max(upTo, 0), nominal: safeS, unit: 's' },
    gaps: [
      ...discharge.gaps,
      ...(discharge.gaps.length === 0 && safeS > limitS
        ? [
            {
              kind: 'never' as const,
              label: `The design needs ${formatNumber(safeS)} s and allows ${formatNumber(limitS)} s: see its findings`,
            },
          ]
        : []),
    ],
    basis: [
      ...discharge.basis,
      builder.row('settings.dischargeLimitS', 'time allowed after shut-down', limitS, 's'),
    ],
  });
}

function prechargeTime(builder: Builder, id: Id, bus: string): void {
  const circuit = builder.design.circuits[id]!;
  const timing = builder.figures(figureId('precharge.run', id, 'timeToThresholdS'));
  const tolerance = toleranceOf(builder, id);
  const timeoutS = circuit.timeoutS ?? circuitDefaults.timeoutS;
  const { completion, timerS } = circuit;
  const timed = completion === 'timer';
  const timeS = timed ? (timerS ?? 0) : timing.values[0]!;
  const gaps: Gap[] = !timed
    ? timing.gaps
    : timerS !== undefined && timerS > 0
      ? []
      : [{ kind: 'not-given', path: `circuits.${id}.timerS`, label: 'timer' }];
  builder.add({
    template: templates['precharge-time'],
    of: id,
    gate: 'first-hv',
    title: `Pre-charge time of ${circuit.tag}`,
    do: 'Start once. Take the time from the pre-charge contactor closing to the main closing.',
    why: timed
      ? 'A timer that is set otherwise closes the main on another voltage than the design counts on.'
      : 'Much faster means less capacitance than there should be; slower means more of it, another resistor, or a load on the bus.',
    hazard: 'live',
    instrument: 'scope',
    subjects: [{ id, tag: circuit.tag }],
    touchedBy: onBus(builder, bus),
    range: timed
      ? {
          kind: 'range',
          min: timeS * (1 - timerTolerance),
          max: timeS * (1 + timerTolerance),
          nominal: timeS,
          unit: 's',
        }
      : {
          kind: 'range',
          min: timeS * (1 - tolerance),
          max: Math.min(timeS * (1 + tolerance), timeoutS),
          nominal: timeS,
          unit: 's',
        },
    gaps,
    basis: timed
      ? [builder.row(`circuits.${id}.timerS`, 'timer', timeS, 's')]
      : [...timing.basis, builder.row(`circuits.${id}.timeoutS`, 'time limit', timeoutS, 's')],
  });
}

function resistorOf({ design }: Builder, id: Id) {
  const part = design.parts[design.circuits[id]!.resistor ?? ''];
  return part?.kind === 'resistor' ? part.data : null;
}

const toleranceOf = (builder: Builder, id: Id) =>
  (resistorOf(builder, id)?.toleranceFraction ?? 0) + capacitanceTolerance;

function prechargeCurve(builder: Builder, id: Id, bus: string): void {
  const circuit = builder.design.circuits[id]!;
  const resistor = resistorOf(builder, id);
  const capacitance = builder.figures(figureId('precharge.bus', bus, 'capacitanceF'));
  const load = builder.evaluation.figures[figureId('precharge.bus', bus, 'loadOhm')];
  const gaps: Gap[] = [
    ...capacitance.gaps,
    ...(load?.gaps.filter(({ kind }) => kind !== 'never') ?? []),
    ...(resistor === null
      ? [{ kind: 'not-given' as const, path: `circuits.${id}.resistor`, label: 'pre-charge resistor' }]
      : []),
  ];
  const rise: Expectation = {
    kind: 'rise',
    resistanceOhm: resistor?.resistanceOhm ?? 0,
    capacitanceF: capacitance.values[0]!,
    capacitanceToleranceFraction: capacitanceTolerance,
    loadOhm: load?.value ?? null,
    unit: 'V',
  };
  builder.add({
    template: templates['precharge-curve'],
    of: id,
    gate: 'first-hv',
    title: `Pre-charge curve of ${circuit.tag}`,
    do: 'Read the pack’s own voltage with a meter. Then capture the bus voltage over time from the moment the pre-charge contactor closes, at least three time constants, differential probe.',
    why: 'The curve tells capacitance and load apart; a bare time does not.',
    hazard: 'live',
    instrument: 'scope',
    subjects: [{ id, tag: circuit.tag }],
    touchedBy: onBus(builder, bus),
    range: rise,
    gaps,
    basis: [
      ...capacitance.basis,
      builder.row(`part:${circuit.resistor}:resistanceOhm`, 'pre-charge resistance', rise.resistanceOhm, 'Ω'),
      ...(rise.loadOhm === null ? [] : [builder.row(load!.id, load!.label, rise.loadOhm, 'Ω')]),
    ],
  });
}

export const firstHvProcedure: Procedure = {
  templates,
  steps: (builder) => {
    polarity(builder);
    for (const id of prechargedCircuits(builder.design)) firstHv(builder, id);
  },
};
