import type { Gap } from '../../ground/figure';
import type { Basis, GateId, Instrument, JointWork, Measured } from '../../record';
import type { Design } from '../document';
import type { Evaluation } from '../step';
import type { Builder } from './builder';
import type { Expectation } from './expectation';
import type { Hazard } from './hazard';

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
  /** Which template made it. */
  template: string;
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

/** A step that expects something, with what it was made from. */
export interface Case {
  step: ProcedureStep;
  expected: Expectation;
  design: Design;
  evaluation: Evaluation;
}

/** A cause that would explain a failed result. */
export interface Suspect {
  cause: string;
  /** The numbers that speak for it. */
  because: string;
  /** What to do to be sure. */
  check: string;
  /** How far what it predicts lies from what was measured, as a share; null: it predicts no figure. */
  missFraction: number | null;
}

/** A cause with the value the step would have read because of it; null: it predicts no figure. */
export interface Hypothesis extends Omit<Suspect, 'missFraction'> {
  predicts: number | null;
}

/** A value with noise of a share of it, from half below to half above. */
export type Near = (value: number, share: number) => number;

/** What all steps of one kind have in common, beside what each expects. */
export interface Template {
  id: string;
  /** What an instrument reads where all is as designed; absent: the middle of what is expected. */
  reads?(of: Case, near: Near): number;
  /** What could explain a result that failed, in the order of the trade’s experience; absent: nothing is known. */
  causes?(of: Case, value: number, measured: Measured): Hypothesis[];
}

/** Templates by id, each with its own: a step names its template by this object, so that a mistyped one does not compile. */
export function defineTemplates<Id extends string>(
  templates: Readonly<Record<Id, Omit<Template, 'id'>>>,
): Readonly<Record<Id, Template>> {
  const named = Object.entries<Omit<Template, 'id'>>(templates).map(([id, rest]) => [id, { id, ...rest }]);
  return Object.fromEntries(named) as Record<Id, Template>;
}

/** Part of the procedure: its templates, and the steps that it makes of a design. */
export interface Procedure {
  templates: Readonly<Record<string, Template>>;
  steps(builder: Builder): void;
}

/** Whether the id of a step, as an entry keeps it, is one of a template. */
export const isStepOf = ({ id }: Pick<Template, 'id'>, step: string): boolean => step.startsWith(`${id}:`);

/** What an insulation tester reads of something that is dry: far above what is asked, MΩ. */
export const insulationReads = ({ expected }: Case, near: Near): number =>
  near(Math.max(((expected.kind === 'range' ? expected.min : undefined) ?? 0) * 40, 8), 0.2);
