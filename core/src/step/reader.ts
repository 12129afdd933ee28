import type { Design } from '../document';
import type { Check, Figure, FigureId } from '../figure';
import type { PartKind, PartOf } from '../parts';

/** A path into the design, at most three keys deep: what lies below is read as one value. */
export interface Reader {
  at<A extends keyof Design>(a: A): Design[A];
  at<A extends keyof Design, B extends keyof Design[A]>(a: A, b: B): Design[A][B] | undefined;
  at<A extends keyof Design, B extends keyof Design[A], C extends keyof Design[A][B]>(
    a: A,
    b: B,
    c: C,
  ): Design[A][B][C] | undefined;
  /** Another step's figure; it is computed first if need be. */
  figure(id: FigureId): Figure;
  /** The parts of a kind that can be chosen here: the shop's library. */
  parts<Kind extends PartKind>(kind: Kind): readonly PartOf<Kind>[];
}

/** What a step computes for one subject. */
export interface StepOutput {
  figures: Figure[];
  checks: Check[];
  /** The calculation behind them, for plots on request. */
  run?: { calculator: string; input: unknown; result: unknown };
}

/** A piece of the evaluation: from the document and other figures to figures and checks. */
export interface StepDefinition {
  id: string;
  /** Raised when the step's own arithmetic changes. */
  version: number;
  subjects(design: Design): string[];
  compute(subject: string, read: Reader): StepOutput;
}
