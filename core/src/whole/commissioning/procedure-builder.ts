import type { Design } from '../../model/document';
import type { Gap, FigureId } from '../../ground/figure';
import { formatQuantity } from '../../ground/quantity';
import type { Basis, Instrument, JointWork } from '../../record';
import { gapsBehind, type Evaluation } from '../../model/step';
import type { GateId } from '../../record';

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
    }
  /** The pins of a sense plug against its reference. */
  | { kind: 'ladder'; cells: number; cellMinV: number; cellMaxV: number; tied: number; unit: 'V' }
  /** One reading for each thing named. */
  | {
      kind: 'list';
      items: string[];
      min?: number;
      max?: number;
      /** No further from the middle of all than this. */
      withinOfMiddle?: number;
      /** Against the steps of the ladder that the record has for this board, once what all moved by is taken off. */
      ladder?: { step: string; within: number; recordedV?: number[] };
      unit: string;
    }
  /** A vessel that holds its pressure, corrected for temperature and weather. */
  | { kind: 'hold'; testKPa: number; minutes: number; allowedDropKPa: number; volumeL: number; unit: 'kPa' };

/** What is at hand during a step; its precautions follow from it. */
export type Hazard =
  /** A single part, below the touch limit. */
  | 'part'
  /** A single part above it. */
  | 'part-hv'
  /** A vehicle that is isolated and proved dead. */
  | 'isolated'
  /** High voltage is on: that is what the step is about. */
  | 'live'
  /** Compressed air in a vessel; nothing electric is at hand. */
  | 'pressure'
  /** The 12 or 24 V side alone. */
  | 'low-voltage';

/** A step that is recorded along a walk: every joint or body of it, by one entry or several. */
export interface StepWalk {
  /** A cut is recorded with the cut list; its items are the places of lengths. */
  work: JointWork | 'cut';
  items: { id: string; tag: string }[];
  /** The current that a drop is read at, at the least; absent: none is needed. */
  leastA?: number;
}

/** One step of the procedure, generated from the design. */
export interface ProcedureStep {
  /** `${template}:${subject}`. */
  id: string;
  gate: GateId;
  title: string;
  do: string;
  why: string;
  hazard: Hazard;
  /** Taken where there is gear and time for it: no gate waits for it, and it is not due. */
  optional?: boolean;
  instrument: Instrument['kind'];
  subjects: { id: string; tag: string }[];
  /** What else makes it due again when it was worked on. */
  touchedBy?: string[];
  /** How long it takes to wait: what calls back is set to it. */
  waitMinutes?: number;
  /** Recorded by walks in Protect, or with the cut list in Route, not here. */
  walk?: StepWalk;
  expected: Expectation | null;
  /** In words; or why there is no expectation. */
  expectedText: string;
  gaps: Gap[];
  basis: Basis[];
}

/** Precautions where the vehicle is isolated before anything is touched. */
const isolatedPrecautions = [
  'Service disconnect out, locked off and tagged before anything is touched; wait for the bus to discharge.',
  'Prove dead with a meter that was proved on a known source before and after.',
  'Rated gloves and tools, eye protection, no jewellery; one hand where it can be done.',
  'A second person who knows the disconnect, with an extinguisher at hand. Nobody works alone.',
  'The component makers’ documents and the rules of the place come first.',
];

/** Precautions at steps for which high voltage has to be on. */
const livePrecautions = [
  'High voltage is on during this step. Leads and probes are connected before, with the bus proved dead, and rated for this voltage and category; covers are on over everything else.',
  'From then on nobody touches, plugs or moves anything; where a probe is held by hand: rated gloves, eye protection, no jewellery, one hand.',
  'A second person who knows the disconnect stands beside it, with an extinguisher at hand. Nobody works alone.',
  'Afterwards: mains open, disconnect out, locked off and tagged; wait for the bus to discharge; prove dead with a meter that was proved on a known source before and after.',
  'The component makers’ documents and the rules of the place come first.',
];

const partPrecautions = [
  'A single module can burn a tool and a hand: insulated tools, no jewellery, covers over all terminals but one.',
  'Prove the meter on a known source before and after.',
];

const highPartPrecautions = [
  'This part alone is above the touch limit and cannot be switched off: rated gloves and tools, eye protection, no jewellery, one hand, covers over all terminals but one.',
  'A second person who knows what to do, with an extinguisher at hand. Nobody works alone.',
  'Prove the meter on a known source before and after.',
  'The maker’s documents and the rules of the place come first.',
];

const pressurePrecautions = [
  'Air stores energy: eye protection, a regulator and a relief valve set to what the weakest part stands, hoses tied. Nobody bends over it while it fills.',
  'Never more than the makers of plate, radiator and hose allow.',
  'In a vehicle: high voltage isolated, locked off and proved dead with a meter that was proved on a known source before and after; no coolant near open live parts.',
];

const lowVoltagePrecautions = [
  'A low-voltage battery melts a ring or a spanner: no jewellery, insulated tools, its minus off before a fuse or wire is worked on.',
  'Brown is not orange: where both run in one box, high voltage is isolated, locked off and proved dead first, with a meter that was proved on a known source before and after.',
];

/** The usual precautions, by what is at hand. */
export const precautions: Record<Hazard, { title: string; lines: readonly string[] }> = {
  part: { title: 'Precautions', lines: partPrecautions },
  'part-hv': { title: 'This part is high voltage by itself', lines: highPartPrecautions },
  isolated: { title: 'High voltage may be at hand', lines: isolatedPrecautions },
  live: { title: 'High voltage is on during this step', lines: livePrecautions },
  pressure: { title: 'Compressed air', lines: pressurePrecautions },
  'low-voltage': { title: 'Low voltage', lines: lowVoltagePrecautions },
};

/** How far a moved figure may go before a result on it is stale. */
const staleBeyondFraction = 1e-6;

/** Gathers the steps of a procedure. */
export class Builder {
  readonly steps: ProcedureStep[] = [];
  constructor(
    readonly design: Design,
    readonly evaluation: Evaluation,
  ) {}

  /** Figures an expectation rests on: their values, basis and gaps. */
  figures(...ids: FigureId[]): { values: number[]; basis: Basis[]; gaps: Gap[] } {
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
    const gaps = [...rest.gaps, ...contradiction(range ?? null)];
    const expected = gaps.length > 0 ? null : (range ?? null);
    this.steps.push({ ...rest, gaps, expected, expectedText: expected === null ? '' : describe(expected) });
  }
}

/** A range that no value lies in is no expectation: nothing could pass it, and a finding says what is wrong. */
function contradiction(range: Expectation | null): Gap[] {
  if (range?.kind !== 'range' || range.min === undefined || range.max === undefined) return [];
  const { min, max, unit } = range;
  return min <= max
    ? []
    : [
        {
          kind: 'never',
          label: `The design expects at least ${formatQuantity(min, unit)} and allows at most ${formatQuantity(max, unit)}: see its findings`,
        },
      ];
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
  if (expected.kind === 'ladder')
    return `${expected.cells} steps of ${formatQuantity(expected.cellMinV, 'V')} to ${formatQuantity(expected.cellMaxV, 'V')}${expected.tied === 0 ? '' : `, then ${expected.tied} pins as the top`}`;
  if (expected.kind === 'list') return describeList(expected);
  if (expected.kind === 'hold')
    return `${formatQuantity(expected.testKPa, 'kPa')} held for ${formatQuantity(expected.minutes, 'min')}, falling by ${formatQuantity(expected.allowedDropKPa, 'kPa')} at the most once corrected for temperature`;
  const { min, max, nominal, unit } = expected;
  if (min !== undefined && max !== undefined)
    return `${formatQuantity(min, unit)} to ${formatQuantity(max, unit)}`;
  if (min !== undefined) return `${formatQuantity(min, unit)} or more`;
  if (max !== undefined) return `${formatQuantity(max, unit)} or less`;
  return nominal === undefined ? 'any value' : `any value; the maker says ${formatQuantity(nominal, unit)}`;
}

function describeList({
  items,
  min,
  max,
  withinOfMiddle,
  ladder,
  unit,
}: Extract<Expectation, { kind: 'list' }>) {
  const q = (value: number) => formatQuantity(value, unit);
  const each =
    min !== undefined && max !== undefined
      ? `each ${q(min)} to ${q(max)}`
      : min !== undefined
        ? `each ${q(min)} or more`
        : max !== undefined
          ? `each ${q(max)} or less`
          : 'any value';
  return [
    `${items.length} readings, ${each}`,
    ...(withinOfMiddle === undefined ? [] : [`none further than ${q(withinOfMiddle)} from their middle`]),
    ...(ladder === undefined
      ? []
      : [`within ${q(ladder.within)} of the recorded ladder, once what all moved by is taken off`]),
  ].join(', ');
}
