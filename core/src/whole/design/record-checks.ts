import type { Check } from '../../ground/figure';
import { laid, type Design } from '../../model/document';
import type { Evaluation } from '../../model/step';
import { asPresent, type Entry } from '../../record';
import { rooms } from '../../rooms';

/**
 * What the record says against the things of a design: checks like those of the evaluation, but with entries and the
 * day as input.
 *
 * @param entries those that count
 */
export const recordChecks = (design: Design, entries: readonly Entry[], nowMs: number): Check[] =>
  rooms.flatMap((room) => room.recorded.flatMap((judge) => judge(laid(design), asPresent(entries), nowMs)));

/**
 * Every check there is: of the design, of the vehicle as built where only that raises it, and of what the record says.
 *
 * @param built of the design as built; the same evaluation where nothing differs
 * @param entries those that count
 */
export function everyCheck(
  evaluation: Evaluation,
  built: Evaluation,
  design: Design,
  entries: readonly Entry[],
  nowMs: number,
): Check[] {
  const recorded = recordChecks(design, entries, nowMs);
  if (built === evaluation) return [...evaluation.checks, ...recorded];
  const raised = new Set(evaluation.checks.flatMap(({ key, state }) => (state === 'raised' ? [key] : [])));
  const onlyBuilt = new Map(
    built.checks.flatMap((check) =>
      check.state === 'raised' && !raised.has(check.key)
        ? [[check.key, { ...check, message: `As built: ${check.message}` }] as const]
        : [],
    ),
  );
  const known = new Set(evaluation.checks.map(({ key }) => key));
  return [
    ...evaluation.checks.map((check) => onlyBuilt.get(check.key) ?? check),
    ...[...onlyBuilt.values()].filter(({ key }) => !known.has(key)),
    ...recorded,
  ];
}
