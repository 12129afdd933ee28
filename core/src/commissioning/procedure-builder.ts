import type { Design } from '../document';
import type { Gap } from '../figure';
import { formatQuantity } from '../quantity';
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
  /** Taken where there is gear and time for it: no gate waits for it, and it is not due. */
  optional?: boolean;
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

/** Gathers the steps of a procedure. */
export class Builder {
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
  const { min, max, nominal, unit } = expected;
  if (min !== undefined && max !== undefined)
    return `${formatQuantity(min, unit)} to ${formatQuantity(max, unit)}`;
  if (min !== undefined) return `${formatQuantity(min, unit)} or more`;
  if (max !== undefined) return `${formatQuantity(max, unit)} or less`;
  return nominal === undefined ? 'any value' : `any value; the maker says ${formatQuantity(nominal, unit)}`;
}
