import { mainCircuits, type Design } from '../document';
import { figureId, type Gap } from '../figure';
import { formatNumber, formatQuantity } from '../quantity';
import type { Basis, Instrument } from '../record';
import { gapsBehind, type Evaluation } from '../step';
import type { GateId } from './gates';

export type Expectation =
  | { kind: 'range'; min?: number; max?: number; nominal?: number; unit: string }
  /** A pre-charge rise, judged by its fit. */
  | {
      kind: 'rise';
      resistanceOhm: number;
      capacitanceF: number;
      capacitanceToleranceFraction: number;
      /** null: no load may be seen. */
      loadOhm: number | null;
      unit: 'V';
    };

/** One step of the procedure, generated from the design. */
export interface ProcedureStep {
  /** `${template}:${subject}`. */
  id: string;
  gate: GateId;
  title: string;
  do: string;
  why: string;
  /** True where voltage above the touch limit is at hand. */
  hv: boolean;
  instrument: Instrument['kind'];
  subjects: { id: string; tag: string }[];
  expected: Expectation | null;
  /** In words; or why there is no expectation. */
  expectedText: string;
  gaps: Gap[];
  basis: Basis[];
}

/** Precautions at every step with high voltage at hand. */
export const hvPrecautions = [
  'Service disconnect out, locked off and tagged before anything is touched; wait for the bus to discharge.',
  'Prove dead with a meter that was proved on a known source before and after.',
  'Rated gloves and tools, eye protection, no jewellery; one hand where it can be done.',
  'A second person who knows the disconnect, with an extinguisher at hand. Nobody works alone.',
  'The component makers’ documents and the rules of the place come first.',
];

/** Precautions at steps on single parts below the touch limit. */
export const partPrecautions = [
  'A single module can burn a tool and a hand: insulated tools, no jewellery, covers over all terminals but one.',
  'Prove the meter on a known source before and after.',
];

/** How far a moved figure may go before a result on it is stale. */
const staleBeyondFraction = 1e-6;

class Builder {
  readonly steps: ProcedureStep[] = [];
  constructor(
    readonly design: Design,
    readonly evaluation: Evaluation,
  ) {}

  /** Figures an expectation rests on: their values, basis and gaps. */
  figures(...ids: string[]): { values: number[]; basis: Basis[]; gaps: Gap[] } {
    const found = ids.map((id) => this.evaluation.figures[id]);
    const gaps: Gap[] = [];
    const basis: Basis[] = [];
    ids.forEach((id, i) => {
      const figure = found[i];
      if (figure === undefined) gaps.push({ kind: 'needs', figure: id, label: id });
      else if (figure.value === null) gaps.push(...gapsBehind(figure));
      else basis.push(this.row(id, figure.label, figure.value, figure.unit));
    });
    return { values: found.map((figure) => figure?.value ?? 0), basis, gaps };
  }

  row(figure: string, label: string, value: number, unit: string): Basis {
    return { figure, label, value, unit, toleranceFraction: staleBeyondFraction };
  }

  add(step: Omit<ProcedureStep, 'expected' | 'expectedText'> & { range?: Expectation | null }): void {
    const { range, ...rest } = step;
    const expected = rest.gaps.length > 0 ? null : (range ?? null);
    this.steps.push({ ...rest, expected, expectedText: expected === null ? '' : describe(expected) });
  }
}

/** An expectation as one line. */
export function describe(expected: Expectation): string {
  if (expected.kind === 'rise') {
    const low = formatQuantity(expected.capacitanceF * (1 - expected.capacitanceToleranceFraction), 'F');
    const high = formatQuantity(expected.capacitanceF * (1 + expected.capacitanceToleranceFraction), 'F');
    const load =
      expected.loadOhm === null
        ? 'no load on the bus'
        : `a load of about ${formatQuantity(expected.loadOhm, 'Ω')}`;
    return `a rise that fits ${low} to ${high} through ${formatQuantity(expected.resistanceOhm, 'Ω')}, ${load}`;
  }
  const { min, max, unit } = expected;
  if (min !== undefined && max !== undefined)
    return `${formatQuantity(min, unit)} to ${formatQuantity(max, unit)}`;
  if (min !== undefined) return `${formatQuantity(min, unit)} or more`;
  if (max !== undefined) return `${formatQuantity(max, unit)} or less`;
  return 'any value';
}

const pick = (step: string, subject: string, name: string) => figureId(step, subject, name);
const packFigure = (name: string) => pick('pack.pack', 'pack', name);

/** The procedure for a design: what to do, in which gate, and what is expected, with what it rests on. */
export function procedureFor(design: Design, evaluation: Evaluation): ProcedureStep[] {
  const builder = new Builder(design, evaluation);
  intakeVoltages(builder);
  for (const id of mainCircuits(design)) partsOfCircuit(builder, id);
  bleedResistance(builder);
  insulation(builder, 'negative');
  insulation(builder, 'positive');
  deadBus(builder);
  polarity(builder);
  for (const id of mainCircuits(design)) firstHv(builder, id);
  return builder.steps;
}

function intakeVoltages(builder: Builder): void {
  const { design } = builder;
  const placed = Object.values(design.strings).flatMap(({ modules }) => modules);
  const spare = Object.keys(design.modules).filter((id) => !placed.includes(id));
  for (const id of [...placed, ...spare]) {
    const module = design.modules[id];
    const part = module === undefined ? undefined : design.parts[module.part];
    if (module === undefined || part?.kind !== 'module') continue;
    const { cell, cellsInSeries } = part.data;
    const min = cell.minV * cellsInSeries;
    const max = cell.maxV * cellsInSeries;
    builder.add({
      id: `intake-voltage:${id}`,
      gate: 'parts',
      title: `Intake voltage of ${module.tag}`,
      do: `Measure ${module.tag} (${part.label}) from − to + at its terminals, at rest.`,
      why: 'A module below its minimum is damaged; one above its maximum was overcharged; a wrong sign is a wrong label.',
      hv: max > (design.settings.touchLimitV ?? 60),
      instrument: 'meter',
      subjects: [{ id, tag: module.tag }],
      range: { kind: 'range', min, max, unit: 'V' },
      gaps: [],
      basis: [
        builder.row(`part:${module.part}:minV`, `lowest voltage of ${part.number}`, min, 'V'),
        builder.row(`part:${module.part}:maxV`, `highest voltage of ${part.number}`, max, 'V'),
      ],
    });
  }
}

function partsOfCircuit(builder: Builder, id: string): void {
  const circuit = builder.design.circuits[id]!;
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const ohm = resistor?.resistanceOhm ?? 0;
  const tolerance = (resistor?.toleranceFraction ?? 0) + 0.01;
  builder.add({
    id: `precharge-resistor:${id}`,
    gate: 'parts',
    title: `Pre-charge resistor of ${circuit.tag}`,
    do: 'Measure the resistor with one end free; take the leads’ own resistance off.',
    why: 'The wrong resistor makes every later pre-charge test wrong, and may burn.',
    hv: false,
    instrument: 'meter',
    subjects: [{ id, tag: circuit.tag }],
    range: { kind: 'range', min: ohm * (1 - tolerance), max: ohm * (1 + tolerance), nominal: ohm, unit: 'Ω' },
    gaps:
      resistor === null
        ? [{ kind: 'not-given', path: `circuits.${id}.resistor`, label: 'pre-charge resistor' }]
        : [],
    basis:
      resistor === null
        ? []
        : [builder.row(`part:${circuit.resistor}:resistanceOhm`, `resistance of ${part!.number}`, ohm, 'Ω')],
  });
}

function bleedResistance(builder: Builder): void {
  const bleed = builder.figures(pick('precharge.bus', 'bus', 'bleedOhm'));
  const ohm = bleed.values[0]!;
  builder.add({
    id: 'bleed-resistance:bus',
    gate: 'parts',
    title: 'Bleed resistance across the bus',
    do: 'With the pack disconnected and the bus proved dead, measure from bus + to bus −; wait until the reading stands still.',
    why: 'The bleed is all that empties the capacitors after shut-down.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: ohm * 0.9, max: ohm * 1.1, nominal: ohm, unit: 'Ω' },
    gaps: bleed.gaps,
    basis: bleed.basis,
  });
}

function insulation(builder: Builder, pole: 'negative' | 'positive'): void {
  const highest = builder.figures(packFigure('voltageMaxV'));
  const perV = builder.design.settings.insulationOhmPerV ?? 500;
  builder.add({
    id: `insulation-${pole}:pack`,
    gate: 'insulation',
    title: `Insulation, ${pole} pole to chassis`,
    do: `Electronics isolated from the tester. Test from the pack’s ${pole} pole to the chassis at a test voltage the makers allow; read after one minute.`,
    why: `${formatNumber(perV)} Ω for each volt keeps the current through a person who touches one pole small.`,
    hv: true,
    instrument: 'insulation-tester',
    subjects: [{ id: 'pack', tag: `pack, ${pole} pole` }],
    range: { kind: 'range', min: (perV * highest.values[0]!) / 1e6, unit: 'MΩ' },
    gaps: highest.gaps,
    basis: [...highest.basis, builder.row('settings.insulationOhmPerV', 'insulation limit', perV, 'Ω/V')],
  });
}

function deadBus(builder: Builder): void {
  const limit = builder.design.settings.touchLimitV ?? 60;
  builder.add({
    id: 'bus-dead:bus',
    gate: 'first-hv',
    title: 'Bus proved dead before the last link',
    do: 'Service disconnect out. Measure bus + to bus −, and each pole to chassis; prove the meter before and after.',
    why: 'The last link is closed onto a bus that is known to be empty, or not at all.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: -limit, max: limit, nominal: 0, unit: 'V' },
    gaps: [],
    basis: [builder.row('settings.touchLimitV', 'touch limit', limit, 'V')],
  });
}

function polarity(builder: Builder): void {
  const pack = builder.figures(packFigure('voltageMinV'), packFigure('voltageMaxV'));
  builder.add({
    id: 'polarity:pack',
    gate: 'first-hv',
    title: 'Polarity and voltage at the main contactors',
    do: 'Last link closed, mains open. Measure from pack − to pack + on the pack’s side of the main contactors.',
    why: 'A swapped pole destroys every device on the bus the moment pre-charge begins; polarised contactors do not break backwards.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'pack', tag: 'pack' }],
    range: { kind: 'range', min: pack.values[0]!, max: pack.values[1]!, unit: 'V' },
    gaps: pack.gaps,
    basis: pack.basis,
  });
}

/** Capacitors on the bus are made with a tolerance of about this. */
const capacitanceTolerance = 0.2;

function firstHv(builder: Builder, id: string): void {
  const circuit = builder.design.circuits[id]!;
  const subjects = [{ id, tag: circuit.tag }];
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const timing = builder.figures(pick('precharge.run', id, 'timeToThresholdS'));
  const tolerance = (resistor?.toleranceFraction ?? 0) + capacitanceTolerance;
  const timeoutS = circuit.timeoutS ?? 3;
  const timeS = timing.values[0]!;
  builder.add({
    id: `precharge-time:${id}`,
    gate: 'first-hv',
    title: `Pre-charge time of ${circuit.tag}`,
    do: 'Start once. Take the time from the pre-charge contactor closing to the main closing.',
    why: 'Much faster means less capacitance than there should be; slower means more of it, another resistor, or a load on the bus.',
    hv: true,
    instrument: 'scope',
    subjects,
    range: {
      kind: 'range',
      min: timeS * (1 - tolerance),
      max: Math.min(timeS * (1 + tolerance), timeoutS),
      nominal: timeS,
      unit: 's',
    },
    gaps: timing.gaps,
    basis: [...timing.basis, builder.row(`circuits.${id}.timeoutS`, 'time limit', timeoutS, 's')],
  });
  const bus = builder.figures(pick('precharge.bus', 'bus', 'capacitanceF'));
  const load = builder.evaluation.figures[pick('precharge.bus', 'bus', 'loadOhm')]?.value ?? null;
  const riseGaps = [...bus.gaps];
  if (resistor === null) {
    riseGaps.push({ kind: 'not-given', path: `circuits.${id}.resistor`, label: 'pre-charge resistor' });
  }
  const rise: Expectation = {
    kind: 'rise',
    resistanceOhm: resistor?.resistanceOhm ?? 0,
    capacitanceF: bus.values[0]!,
    capacitanceToleranceFraction: capacitanceTolerance,
    loadOhm: load,
    unit: 'V',
  };
  builder.add({
    id: `precharge-curve:${id}`,
    gate: 'first-hv',
    title: `Pre-charge curve of ${circuit.tag}`,
    do: 'Read the pack’s own voltage with a meter. Then capture the bus voltage over time from the moment the pre-charge contactor closes, at least three time constants, differential probe.',
    why: 'The curve tells capacitance and load apart; a bare time does not.',
    hv: true,
    instrument: 'scope',
    subjects,
    range: rise,
    gaps: riseGaps,
    basis: [
      ...bus.basis,
      builder.row(`part:${circuit.resistor}:resistanceOhm`, 'pre-charge resistance', rise.resistanceOhm, 'Ω'),
    ],
  });
  const discharge = builder.figures(pick('precharge.discharge', 'bus', 'timeToSafeS'));
  const limitS = builder.design.settings.dischargeLimitS ?? 5;
  const safeS = discharge.values[0]!;
  const upTo = Math.min(safeS * (1 + 0.1 + capacitanceTolerance), limitS);
  builder.add({
    id: `stop-discharge:${id}`,
    gate: 'first-hv',
    title: `Stop: time to below ${formatNumber(builder.design.settings.touchLimitV ?? 60)} V`,
    do: 'Switch off. Take the time from the main opening until the bus has fallen below the touch limit.',
    why: 'A bus that stays charged longer is met by the next person who opens the vehicle; one that does not fall is a welded contactor.',
    hv: true,
    instrument: 'scope',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: 0, max: Math.max(upTo, 0), nominal: safeS, unit: 's' },
    gaps: discharge.gaps,
    basis: [
      ...discharge.basis,
      builder.row('settings.dischargeLimitS', 'time allowed after shut-down', limitS, 's'),
    ],
  });
}
