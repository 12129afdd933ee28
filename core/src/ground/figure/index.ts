import type { Rule, Grade, CheckValue, Suggestion } from '../finding';
import type { WorkingInput, WorkingStep } from '../working';

/**
 * The figures of each step, by the step’s id: each room adds those of its own (`<room>/figures.ts`), so that an
 * id that no step has does not compile, wherever it is read.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by the rooms
export interface StepFigures {}
export type StepId = keyof StepFigures;
export type FigureName<Step extends StepId> = StepFigures[Step];

type Ids = {
  [Step in StepId]: [StepFigures[Step]] extends [never] ? never : `${Step}:${string}:${StepFigures[Step]}`;
};
/** `${step}:${subject}:${name}`. */
export type FigureId = Ids[StepId];
/** `${step}:${subject}`: what a step computed for one subject. */
export type RunId = `${StepId}:${string}`;

export function figureId<Step extends StepId>(step: Step, subject: string, name: FigureName<Step>): FigureId {
  return `${step}:${subject}:${name}` as FigureId;
}

/** Why something is not computed. `path` is the dotted place in the design. */
export type Gap =
  | { kind: 'not-given'; path: string; label: string }
  | { kind: 'invalid'; path: string; label: string; message: string }
  | { kind: 'needs'; figure: FigureId; label: string }
  | { kind: 'never'; label: string };

/** Where an input of a calculation came from. */
export type Origin =
  | { kind: 'document'; path: string }
  | { kind: 'default'; path: string }
  | { kind: 'part'; key: string; path: string }
  | { kind: 'figure'; id: FigureId }
  | { kind: 'constant'; source: string };

export interface TracedInput extends WorkingInput {
  origin?: Origin;
}

/** A step of working whose inputs know where in the design they came from. */
export interface TracedStep extends Omit<WorkingStep, 'inputs'> {
  inputs: TracedInput[];
}

export interface Limit {
  min?: number;
  max?: number;
}

export interface Figure {
  id: FigureId;
  label: string;
  unit: string;
  /** null with at least one gap, or as a result: it never happens. */
  value: number | null;
  gaps: Gap[];
  limit?: Limit;
  /** In order; the last is the figure's own step. */
  working: TracedStep[];
}

/** The end of its limit that a figure is beyond; null: it is within, has none, or is not computed. */
export function brokenLimit({ value, limit }: Pick<Figure, 'value' | 'limit'>): number | null {
  if (value === null || limit === undefined) return null;
  if (limit.max !== undefined && value > limit.max * (1 + 1e-9)) return limit.max;
  return limit.min !== undefined && value < limit.min * (1 - 1e-9) ? limit.min : null;
}

interface CheckBase {
  /** Rule and sorted subjects: the identity of the finding, whatever its message says. */
  key: string;
  rule: Rule;
  /** What it is of, and behind that what else it names. */
  subjects: string[];
}

/** A rule applied to its subjects: raised, clear, or not checked because something is missing. */
export type Check = CheckBase &
  (
    | {
        state: 'raised';
        grade: Grade;
        message: string;
        values: CheckValue[];
        /** Parts that were judged, by key and revision. */
        parts: string[];
        suggestions: Suggestion[];
        /** What a fitting part needs, where none of the replacements fits. */
        advice: string | null;
      }
    | { state: 'clear'; values: CheckValue[] }
    | { state: 'not-checked'; gaps: Gap[] }
  );

export type RaisedCheck = Extract<Check, { state: 'raised' }>;

export function checkKey(rule: Rule, subjects: string[]): string {
  return `${rule.id}|${[...subjects].sort().join(',')}`;
}

/** One sentence for a gap, as the interface shows it. */
export function gapText(gap: Gap): string {
  switch (gap.kind) {
    case 'not-given':
      return `${gap.label} is not given`;
    case 'invalid':
      return `${gap.label} ${gap.message}`;
    case 'needs':
      return `${gap.label} is not computed`;
    case 'never':
      return gap.label;
  }
}
