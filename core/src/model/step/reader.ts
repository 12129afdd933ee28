import equal from 'fast-deep-equal';
import type { Design } from '../document';
import type { Check, Figure, FigureId, StepId } from '../../ground/figure';
import type { PartKind, PartOf } from '../parts';

/**
 * Reads the design by paths of at most three keys. What has fields comes as a view that notes each field when it is
 * read, and stays inside the step: an output holds values, never a view. Lists, and what lies below three keys, are read
 * as one value.
 */
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
  /** What several steps go by, made once per design. */
  shared<T>(view: SharedView<T>): T;
  /** The parts of a kind that can be chosen here: the shop's library. */
  parts<Kind extends PartKind>(kind: Kind): readonly PartOf<Kind>[];
}

/** Something that follows from the design alone and that several steps go by: what did not move keeps its identity. */
export interface SharedView<T> {
  id: string;
  /** @param design a view of it: what is made of it holds values alone */
  make(design: Design): T;
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
  id: StepId;
  /** Raised when the step's own arithmetic changes. */
  version: number;
  subjects(design: Design): string[];
  compute(subject: string, read: Reader): StepOutput;
}

/** Whether a figure that was read is still what it was. */
export const unchangedFigure = (read: Pick<Figure, 'value' | 'gaps'>, now: Figure): boolean =>
  Object.is(now.value, read.value) && (now.gaps === read.gaps || equal(now.gaps, read.gaps));
