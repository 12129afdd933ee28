import type { Entry } from './entry';

/** A resistance from a drop at a known current. */
export interface DropReading {
  ohm: number;
  currentA: number;
  atMs: number;
}

/** What of an entry tells about a walk along joints or bodies. */
export type Told = Pick<Entry, 'body' | 'takenAt' | 'seq'>;

/** By place: the last entry by which something was put into it, or taken out: its joints were opened. */
function openings(entries: readonly Told[]): Map<string, number> {
  const opened = new Map<string, number>();
  for (const { body, seq } of entries)
    if (body.kind === 'fit' || body.kind === 'remove')
      opened.set(body.place, Math.max(seq, opened.get(body.place) ?? 0));
  return opened;
}

/** Readings in the order of their times, each joint’s own; what was read of a joint before it was opened is of another joint. */
export function* walked(entries: readonly Told[]) {
  const walks = entries
    .flatMap(({ body, takenAt, seq }) =>
      body.kind === 'joints' ? [{ body, atMs: Date.parse(takenAt), seq }] : [],
    )
    .sort((a, b) => a.atMs - b.atMs || a.seq - b.seq);
  const opened = openings(entries);
  for (const { body, atMs, seq } of walks)
    for (const { joint, value } of body.joints)
      if (seq > (opened.get(joint.split('/')[0]!) ?? 0)) yield { body, atMs, joint, value };
}

/** A resistance from a drop at a current; null: no current was given. */
export const dropReading = (value: number, currentA: number | null, atMs: number): DropReading | null =>
  currentA === null || currentA === 0
    ? null
    : { ohm: Math.abs(value / currentA), currentA: Math.abs(currentA), atMs };
