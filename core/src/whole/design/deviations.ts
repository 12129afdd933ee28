import type { DeviationBody, Entry, ResultBody } from '../../record';
import type { StepStatus } from './assess';
import { ofKind, type EntryOf } from '../../record';
import { touches } from './walk-status';

/** A failed result, and what became of it. */
export interface Deviation {
  result: EntryOf<ResultBody>;
  /** What was tried, in order. */
  tried: EntryOf<DeviationBody>[];
  /** The try that cured it. */
  cure: EntryOf<DeviationBody> | null;
  /** A later result of the same step that passed. */
  passedBy: EntryOf<ResultBody> | null;
  /** open: neither cured nor passed since; re-test: cured, not passed since; closed: passed since. */
  state: 'open' | 're-test' | 'closed';
  /** Steps whose results are due again because of what was touched. */
  retests: { id: string; title: string }[];
}

/** Every failed result opens one; a later pass of the same step closes it. */
export function deviationsOf(counting: readonly Entry[], statuses: readonly StepStatus[]): Deviation[] {
  const results = ofKind<ResultBody>(counting, 'result');
  const tries = ofKind<DeviationBody>(counting, 'deviation');
  const status = new Map(statuses.map((one) => [one.step.id, one]));
  return results
    .filter(({ body }) => body.verdict === 'fail')
    .map((result) => {
      const tried = tries.filter(({ body }) => body.of === result.seq);
      const cure = tried.findLast(({ body }) => body.cured) ?? null;
      const passedBy =
        results.find(
          ({ seq, body }) =>
            seq > result.seq &&
            body.step === result.body.step &&
            // What passed on the bench says nothing of what failed in the vehicle.
            body.occasion === result.body.occasion &&
            body.verdict === 'pass',
        ) ?? null;
      const touched = new Set(tried.flatMap(({ subjects }) => subjects.map(({ id }) => id)));
      const retests = [...status.values()]
        .filter(
          ({ step, state }) =>
            (step.id === result.body.step && passedBy === null) ||
            (state === 'stale' && [...touched].some((id) => touches(step, id))),
        )
        .map(({ step: { id, title } }) => ({ id, title }));
      const state = passedBy !== null ? 'closed' : cure !== null ? 're-test' : 'open';
      return { result, tried, cure, passedBy, state, retests };
    });
}
