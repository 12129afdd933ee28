import type { Check, Gap } from '../figure';
import { stationOfPath, type Station } from '../document';

const byRoom: Record<string, Station> = {
  axle: 'brief',
  range: 'brief',
  vehicle: 'brief',
  'drive-cycle': 'brief',
  pack: 'pack',
  balance: 'pack',
  'balance-time': 'pack',
  'rest-predict': 'pack',
  'parallel-match': 'pack',
  segments: 'pack',
  network: 'network',
  'live-map': 'network',
  'path-faults': 'network',
};

/** The station where a check belongs. */
export function stationOfCheck(check: Pick<Check, 'rule'>): Station {
  const room = check.rule.id.split('.')[0] ?? '';
  return byRoom[room] ?? 'protect';
}

/** The station where a gap can be filled, or null. */
export function stationOfGap(gap: Gap): Station | null {
  return gap.kind === 'not-given' || gap.kind === 'invalid' ? stationOfPath(gap.path) : null;
}
