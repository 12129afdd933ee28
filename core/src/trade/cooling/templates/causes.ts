import { formatNumber } from '../../../ground/quantity';
import type { Case, Hypothesis } from '../../../model/procedure';

/**
 * Why coolant is warmer, or flows less, than the plumbing says.
 *
 * @param shareOf the share of the computed flow that a reading speaks of, from what it should have been
 */
export function lessFlow(
  { step, design, expected }: Case,
  value: number,
  shareOf: (wanted: number) => number,
): Hypothesis[] {
  const subject = step.subjects[0]!.id;
  const plumbing = Object.values(design.plumbing ?? {});
  const loop = Object.hasOwn(design.loops ?? {}, subject)
    ? subject
    : plumbing.find(
        ({ kind, modules = [] }) =>
          kind === 'plate' && modules.some((id) => design.modules[id]?.box === subject),
      )?.loop;
  const named = (kind: 'valve' | 'pump') =>
    plumbing.flatMap((one) => (one.kind === kind && one.loop === loop ? [one.tag] : []));
  const wanted = expected.kind === 'range' ? expected.nominal : undefined;
  const share = wanted === undefined || !(wanted > 0 && value > 0) ? null : shareOf(wanted);
  const because =
    share === null
      ? 'Less flow than is computed.'
      : `With ${formatNumber(100 * share, 2)} % of the flow that is computed it would read so.`;
  const cause = (what: string, check: string): Hypothesis => ({
    cause: what,
    because,
    check,
    predicts: null,
  });
  return [
    ...named('valve').map((tag) =>
      cause(`${tag} nearly shut`, 'Open it fully and read again; then set it by the flow.'),
    ),
    cause(
      'Air in the plates or at a high point',
      'Let air out from the lowest to the highest bleed with the pump running.',
    ),
    cause('A hose kinked, or its ends swapped', 'Follow the hoses by hand from end to end.'),
    ...named('pump').map((tag) =>
      cause(
        `${tag} turns the wrong way round, or does not`,
        'Feel it run; current and direction by its maker.',
      ),
    ),
  ];
}
