import type { Outlook } from '@torvek/core/balance';
import type { BalanceGear } from '@torvek/core/record';
import { formatNumber } from '@torvek/core/quantity';
import { dayOf, timeOf, weekdayOf } from '../../../parts/dates';
import type { BalanceRow } from './use-balance';

/** Where a cell stands, in a few words. */
export function phaseText({ phase, gear, place, sinceMs, round }: BalanceRow, nowMs: number): string {
  if (phase === 'waiting') return 'waits';
  const hours = (nowMs - sinceMs!) / 3.6e6;
  const since = hours >= 48 ? `${formatNumber(hours / 24, 2)} d` : `${formatNumber(Math.max(hours, 0), 2)} h`;
  const again = round > 1 ? `, round ${round}` : '';
  if (phase === 'resting') return `rests ${since}${again}`;
  return `${gearWord[gear!]}${place === null ? '' : `, bench ${place}`}, ${since}${again}`;
}

export const gearWord: Record<BalanceGear, string> = {
  load: 'under load',
  bleed: 'bleeding',
  charger: 'charging',
  joined: 'joined',
};

/** How a rest ends or has ended; empty for a cell that does not rest. */
export function verdictText({ phase }: Pick<BalanceRow, 'phase'>, outlook: Outlook): string {
  if (phase !== 'resting') return '';
  if (outlook.by === 'rested out')
    return outlook.verdict === 'will settle inside'
      ? 'settled inside'
      : outlook.verdict === 'will settle too high'
        ? 'settled too high'
        : 'settled too low';
  return outlook.verdict;
}

/** How sure a settled voltage is, mV; null where nothing bounds it. */
export const halfWidthMv = ({ lowV, highV }: Outlook): number | null =>
  lowV === null || highV === null ? null : ((highV - lowV) / 2) * 1000;

/** A clock time in the job's zone, with the day unless it is today. */
export function whenText(atMs: number, zone: string, nowMs: number): string {
  const time = timeOf(atMs, zone);
  return dayOf(atMs, zone) === dayOf(nowMs, zone) ? time : `${weekdayOf(atMs, zone)}, ${time}`;
}

/** A few tags by name, many by number. */
export const someTags = (tags: readonly string[], most = 6): string =>
  tags.length <= most ? tags.join(', ') : `${tags.slice(0, most).join(', ')} and ${tags.length - most} more`;
