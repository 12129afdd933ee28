import { gradeRank } from '../../../ground/finding';
import type { RaisedCheck } from '../../../ground/figure';
import { checkDesign, edit, type Design } from '../../../model/document';
import type { Evaluation, Evaluator } from '../../../model/step';
import { absent, type Mistake } from './mistake';

const isRaised = (check: Evaluation['checks'][number]): check is RaisedCheck => check.state === 'raised';

/** What is raised of a design that is right: notes that are worth knowing; by key, its words. */
export const raisedOf = (evaluation: Evaluation): Map<string, string> =>
  new Map(evaluation.checks.filter(isRaised).map(({ key, message }) => [key, message]));

/**
 * Makes a mistake to a design that is right.
 *
 * @param before what is raised of it as it is
 * @returns what was missed, in words; null: it was caught; undefined: the design has nothing to do it to
 */
export function tryMistake(
  { grade, about, make }: Mistake,
  clean: Design,
  before: ReadonlyMap<string, string>,
  evaluator: Pick<Evaluator, 'evaluate'>,
): string | null | undefined {
  let does: unknown = true;
  const edited = edit(clean, (draft) => {
    does = make(draft as Design) ?? true;
  });
  if (does === absent) return undefined;
  // An assignment of false is a change like any other.
  if (edited === null) return does === false ? undefined : 'it changes nothing';
  // What refers to nothing, or to what is taken, is refused before it is saved.
  if (!checkDesign(edited.design).ok) return null;
  const subject = typeof about === 'string' ? about : about(clean);
  const { checks } = evaluator.evaluate(edited.design);
  if (grade === 'unchecked') {
    const open = checks.some(
      (check) =>
        check.state === 'not-checked' &&
        check.gaps.some((gap) => gap.kind === 'not-given' && gap.path === subject),
    );
    return open ? null : `no rule says that it waits for ${subject}`;
  }
  const found = checks.filter(isRaised).filter(({ key, message }) => before.get(key) !== message);
  const caught = found.some(
    (check) => check.subjects.includes(subject) && gradeRank[check.grade] <= gradeRank[grade],
  );
  if (caught) return null;
  const said = found.map((check) => `${check.grade} ${check.key}`).join('; ');
  return `${grade} about ${subject} is missing${said === '' ? '' : ` (raised: ${said})`}`;
}
