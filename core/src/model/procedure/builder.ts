import type { FigureId, Gap } from '../../ground/figure';
import type { Basis } from '../../record';
import type { Design } from '../document';
import { gapsBehind, type Evaluation } from '../step';
import { contradiction, describe, type Expectation } from './expectation';
import type { ProcedureStep, Template } from './procedure';

/** A step as its room says it: of which template, of what, and the range that is expected. */
export type NewStep = Omit<ProcedureStep, 'id' | 'template' | 'expected' | 'expectedText'> & {
  template: Template;
  /** What it is about: with its template that is its id. */
  of: string;
  range?: Expectation | null;
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

  add({ template, of, range, ...rest }: NewStep): void {
    const gaps = [...rest.gaps, ...contradiction(range ?? null)];
    const expected = gaps.length > 0 ? null : (range ?? null);
    this.steps.push({
      id: `${template.id}:${of}`,
      template: template.id,
      ...rest,
      gaps,
      expected,
      expectedText: expected === null ? '' : describe(expected),
    });
  }
}
