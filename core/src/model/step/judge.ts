import type { CheckValue, Rule, Suggestion } from '../../ground/finding';
import { checkKey, type Check, type Figure, type Gap, type RaisedCheck } from '../../ground/figure';

/** Parts that could take the place of one that fails. */
export interface Replacements {
  suggestions: Suggestion[];
  /** What a fitting part needs, in numbers; said where none of the suggestions fits. */
  needs?: string[];
}

/** Makes the replacements when somebody looks at them, of what was read before: it reads nothing itself. */
export type Ranking = () => Replacements;

/** What goes with a finding beside its sentence. */
export interface Verdict {
  /** Parts that could take the place of the one judged. */
  suggestions?: Suggestion[];
  /** The same, where the list takes long to make. */
  ranking?: Ranking;
  /** Parts that were judged, by key and revision: an acceptance belongs to them. */
  parts?: string[];
  /** What a fitting part needs, where none is at hand. */
  advice?: string | null;
  /** Things that it names beside its subjects: they do not make its identity. */
  also?: readonly string[];
}

/**
 * A check from its outcome.
 *
 * @param gaps when there are any, the rule is not checked
 * @param message null when the rule is clear
 * @param values every number that the message names and the judgement rests on: an acceptance lapses when one moves
 */
export function judge(
  rule: Rule,
  subjects: string[],
  gaps: Gap[],
  message: string | null,
  values: CheckValue[] = [],
  { suggestions = [], ranking, parts = [], advice = null, also = [] }: Verdict = {},
): Check {
  const key = checkKey(rule, subjects);
  if (gaps.length > 0) return { key, rule, subjects, state: 'not-checked', gaps: dedupe(gaps) };
  if (message === null) return { key, rule, subjects, state: 'clear', values };
  const { grade } = rule;
  const about = also.length === 0 ? subjects : [...new Set([...subjects, ...also])];
  const stated = { key, rule, subjects: about, state: 'raised' as const, grade, message, values };
  const check: RaisedCheck = { ...stated, parts, suggestions, advice };
  return ranking === undefined ? check : ranked(check, ranking);
}

/** What a fitting part needs, where the library has none. */
export const adviceOf = (needs: readonly string[]) =>
  `Nothing in the library fits: here it takes ${needs.join(', ')}.`;

/** A raised check whose replacements are ranked when somebody first looks at them. */
export function ranked(check: RaisedCheck, ranking: Ranking): RaisedCheck {
  let found: Pick<RaisedCheck, 'suggestions' | 'advice'> | null = null;
  const look = () => {
    if (found === null) {
      const { suggestions, needs = [] } = ranking();
      const none = suggestions.every(({ fits }) => !fits) && needs.length > 0;
      found = { suggestions, advice: none ? adviceOf(needs) : null };
    }
    return found;
  };
  const shown = { enumerable: true, configurable: true };
  return Object.defineProperties(check, {
    suggestions: { ...shown, get: () => look().suggestions },
    advice: { ...shown, get: () => look().advice },
  });
}

/** The gaps behind a figure: its own reasons, or the figure itself when its result is that it never happens. */
export function gapsBehind(figure: Figure): Gap[] {
  const causes = figure.gaps.filter((gap) => gap.kind !== 'never');
  return causes.length > 0 ? causes : [{ kind: 'needs', figure: figure.id, label: figure.label }];
}

export function dedupe(gaps: Gap[]): Gap[] {
  if (gaps.length < 2) return gaps;
  const seen = new Set<string>();
  return gaps.filter((gap) => {
    const key = JSON.stringify(gap);
    return seen.has(key) ? false : seen.add(key);
  });
}
