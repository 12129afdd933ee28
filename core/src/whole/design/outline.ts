import { gapText, type FigureId } from '../../ground/figure';
import type { Evaluation } from '../../model/step';

/** What follows from a design, as the door for whole designs gives it: without working, suggestions and places. */
export interface Outline {
  /** By their ids, which stay: `<step>:<subject>:<name>`. A value that could not be computed, or that is never reached, is null. */
  figures: Record<FigureId, { value: number | null; unit: string; label: string }>;
  findings: { rule: string; grade: string; subjects: string[]; message: string }[];
  notComputed: { figure: FigureId; because: string }[];
  /** Rules that could not be judged: no finding of theirs says nothing. */
  notChecked: { rule: string; subjects: string[]; because: string }[];
}

export function outlineOf({ figures, checks }: Evaluation): Outline {
  const outline: Outline = { figures: {}, findings: [], notComputed: [], notChecked: [] };
  for (const { id, value, unit, label, gaps } of Object.values(figures)) {
    outline.figures[id] = { value, unit, label };
    if (value === null) outline.notComputed.push({ figure: id, because: gaps.map(gapText).join('; ') });
  }
  for (const check of checks) {
    const { rule, subjects } = check;
    if (check.state === 'raised')
      outline.findings.push({ rule: rule.id, grade: check.grade, subjects, message: check.message });
    else if (check.state === 'not-checked')
      outline.notChecked.push({ rule: rule.id, subjects, because: check.gaps.map(gapText).join('; ') });
  }
  return outline;
}
