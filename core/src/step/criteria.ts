import { gradeRank, type CheckValue, type Rule, type Suggestion } from '../finding';
import type { Check, Gap } from '../figure';
import { judge } from './inputs';

/**
 * One thing that a part is held against in its place. Rankings, tables and findings all read the same list, so that
 * nothing is offered that the next judgement refuses.
 */
export interface Criterion {
  rule: Rule;
  /** What is wrong, as it follows the part’s name: “carries 90 A of the 120 A asked”; null: it holds. */
  problem: string | null;
  /** The finding’s own sentence, where the part’s name and the problem do not make one. */
  sentence?: string;
  /** Every number it rests on, the limit included. */
  values: CheckValue[];
  /** Why it is not judged, if it is not. */
  gaps?: Gap[];
  /** Further parts that it is held against, by key and revision. */
  with?: string[];
}

/** What is wrong, each in a few words; empty when every criterion holds. */
export const problemsOf = (criteria: readonly Criterion[]): string[] =>
  criteria.flatMap(({ problem }) => (problem === null ? [] : [problem]));

/** What a fitting part needs, where the library has none. */
export const adviceOf = (needs: readonly string[]) =>
  `Nothing in the library fits: here it takes ${needs.join(', ')}.`;

/** The chosen part that its criteria are about. */
export interface Judged {
  subjects: string[];
  /** Its key and revision, and its name. */
  partKey: string;
  label: string;
  /** What keeps all of them from being judged. */
  gaps?: Gap[];
  /** Replacements; asked for only when something fails. */
  suggestions?: () => Suggestion[];
  /** What a fitting part needs, in numbers; said where none of the replacements fits. */
  needs?: () => string[];
}

/**
 * A check of each criterion of a chosen part: one cause is one finding. Replacements stand under the gravest of those
 * that fail.
 */
export function criteriaChecks(criteria: readonly Criterion[], part: Judged): Check[] {
  const { subjects, partKey, label, gaps = [] } = part;
  const failing = gaps.length > 0 ? [] : criteria.filter((one) => one.problem !== null && !one.gaps?.length);
  const gravest = failing.reduce<Criterion | null>(
    (most, one) => (most === null || gradeRank[one.rule.grade] < gradeRank[most.rule.grade] ? one : most),
    null,
  );
  const replacements = gravest === null ? [] : (part.suggestions?.() ?? []);
  const nothing = gravest !== null && replacements.every(({ fits }) => !fits);
  const needs = nothing ? (part.needs?.() ?? []) : [];
  return criteria.map((criterion) => {
    const { rule, problem, sentence, values } = criterion;
    const ofAll = gaps.length > 0 ? gaps : (criterion.gaps ?? []);
    const first = criterion === gravest;
    const said = problem === null ? null : (sentence ?? `${label} ${problem}.`);
    return judge(rule, subjects, ofAll, said, values, {
      suggestions: first ? replacements : [],
      parts: [partKey, ...(criterion.with ?? [])],
      ...(first && needs.length > 0 && { advice: adviceOf(needs) }),
    });
  });
}

/** Puts replacements under the gravest of the checks that are raised; they are asked for only then. */
export function withReplacements(
  checks: readonly Check[],
  find: () => { suggestions: Suggestion[]; needs: string[] },
): Check[] {
  const gravest = checks.reduce<Check | null>(
    (most, one) =>
      one.state === 'raised' &&
      (most === null || gradeRank[one.rule.grade] < gradeRank[most.rule.grade]) &&
      one.grade !== 'note'
        ? one
        : most,
    null,
  );
  if (gravest === null) return [...checks];
  const { suggestions, needs } = find();
  const advice = suggestions.every(({ fits }) => !fits) && needs.length > 0 ? adviceOf(needs) : null;
  return checks.map((check) => (check === gravest ? { ...check, suggestions, advice } : check)) as Check[];
}
