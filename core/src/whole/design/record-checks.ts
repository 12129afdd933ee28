import type { Check } from '../../ground/figure';
import type { Design } from '../../model/document';
import { asPresent, type Entry } from '../../record';
import { rooms } from '../../rooms';

/**
 * What the record says against the things of a design: checks like those of the evaluation, but with entries and the
 * day as input.
 *
 * @param entries those that count
 */
export const recordChecks = (design: Design, entries: readonly Entry[], nowMs: number): Check[] =>
  rooms.flatMap((room) => room.recorded.flatMap((judge) => judge(design, asPresent(entries), nowMs)));
