import type { RaisedCheck } from '../../ground/figure';
import { gradeRank } from '../../ground/finding';
import type { AcceptanceBody } from '../../record';
import type { FindingStatus } from './assess';
import { movedBeyond } from './moved';
import type { EntryOf } from '../../record';

/** Relative move of a value beyond which an acceptance lapses. */
const lapsesBeyondFraction = 1e-6;

/**
 * A finding with the last acceptance of it, if that still holds. What was accepted of a rule that judged the same before
 * and is gone has lapsed.
 */
export function withAcceptance(
  check: RaisedCheck,
  acceptances: readonly EntryOf<AcceptanceBody>[],
): FindingStatus {
  const last = acceptances.findLast(({ body }) => body.check === check.key);
  if (last !== undefined) {
    const lapsed = whyLapsed(check, last.body);
    return { check, accepted: lapsed === null ? last : null, lapsed };
  }
  const before = (check.rule.formerly ?? []).map((id) => `${id}${check.key.slice(check.rule.id.length)}`);
  const former = acceptances.findLast(({ body }) => before.includes(body.check));
  return {
    check,
    accepted: null,
    lapsed:
      former === undefined
        ? null
        : 'it was given for the part as a whole, which is judged thing by thing since',
  };
}

/**
 * Why an acceptance no longer holds, or null. It belongs to the parts that were judged, by key and revision, and to every
 * number the judgement rested on.
 */
export function whyLapsed(check: RaisedCheck, body: AcceptanceBody): string | null {
  if (check.rule.version !== body.ruleVersion) return 'the rule judges differently since';
  if (gradeRank[check.grade] < gradeRank[body.grade]) return 'its grade has risen';
  if (body.parts === undefined && check.parts.length > 0)
    return 'it does not say for which part it was given';
  const given = new Set(body.parts ?? []);
  const now = new Set(check.parts);
  if (given.size !== now.size || check.parts.some((key) => !given.has(key)))
    return 'a part has been exchanged';
  for (const value of check.values) {
    const then = body.values.find(({ label, unit }) => label === value.label && unit === value.unit);
    if (then === undefined) return `${value.label} was not among what it was accepted on`;
    if (movedBeyond(then.value, value.value, lapsesBeyondFraction)) return `${value.label} has moved`;
  }
  const gone = body.values.find(
    ({ label, unit }) => !check.values.some((value) => value.label === label && value.unit === unit),
  );
  return gone === undefined ? null : `${gone.label} no longer counts`;
}
