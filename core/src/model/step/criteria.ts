import { gradeRank, type CheckValue, type Rule } from '../../ground/finding';
import type { Check, Gap, RaisedCheck } from '../../ground/figure';
import { judge, ranked, type Ranking } from './judge';

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

/** The chosen part that its criteria are about. */
export interface Judged {
  subjects: string[];
  /** Its key and revision, and its name. */
  partKey: string;
  label: string;
  /** What keeps all of them from being judged. */
  gaps?: Gap[];
  /** Asked for only when something fails: reads what a ranking of replacements takes, and gives the ranking. */
  replacements?: () => Ranking;
}

/**
 * A check of each criterion of a chosen part: one cause is one finding. Replacements stand under the gravest of those
 * that fail.
 */
export function criteriaChecks(criteria: readonly Criterion[], part: Judged): Check[] {
  const { subjects, partKey, label, gaps = [], replacements } = part;
  const checks = criteria.map(({ rule, problem, sentence, values, gaps: own = [], with: others = [] }) =>
    judge(
      rule,
      subjects,
      gaps.length > 0 ? gaps : own,
      problem === null ? null : (sentence ?? `${label} ${problem}.`),
      values,
      { parts: [partKey, ...others] },
    ),
  );
  return replacements === undefined ? checks : withReplacements(checks, replacements);
}

/**
 * Puts replacements under the gravest of the checks that are raised.
 *
 * @param prepare reads what the ranking takes; called only when something is raised
 */
export function withReplacements(checks: readonly Check[], prepare: () => Ranking): Check[] {
  const gravest = checks.reduce<RaisedCheck | null>(
    (most, one) =>
      one.state === 'raised' &&
      one.grade !== 'note' &&
      (most === null || gradeRank[one.grade] < gradeRank[most.grade])
        ? one
        : most,
    null,
  );
  if (gravest === null) return [...checks];
  const ranking = prepare();
  return checks.map((check) => (check === gravest ? ranked({ ...gravest }, ranking) : check));
}
