import { rooms } from '../../rooms';
import type { Check, Gap } from '../../ground/figure';
import { stationOfPath, type Station } from '../../model/document';

const byFamily = new Map(rooms.flatMap(({ station, rules }) => rules.map((family) => [family, station])));

/**
 * The station where a check belongs.
 *
 * @throws Error for a rule of no room
 */
export function stationOfCheck({ rule }: Pick<Check, 'rule'>): Station {
  const station = byFamily.get(rule.id.split('.')[0] ?? '');
  if (station === undefined) throw new Error(`rule ${rule.id} belongs to no room`);
  return station;
}

/** The station where a gap can be filled, or null. */
export function stationOfGap(gap: Gap): Station | null {
  return gap.kind === 'not-given' || gap.kind === 'invalid' ? stationOfPath(gap.path) : null;
}
