import type { Entry } from './entry';

/** A resistance from a drop at a known current. */
export interface DropReading {
  ohm: number;
  currentA: number;
  atMs: number;
}

/** What of an entry tells about a walk along joints or bodies. */
export type Told = Pick<Entry, 'body' | 'takenAt' | 'seq'>;

/** Readings in the order of their times, each joint’s own. */
export function* walked(entries: readonly Told[]) {
  const walks = entries
    .flatMap(({ body, takenAt, seq }) =>
      body.kind === 'joints' ? [{ body, atMs: Date.parse(takenAt), seq }] : [],
    )
    .sort((a, b) => a.atMs - b.atMs || a.seq - b.seq);
  for (const { body, atMs } of walks)
    for (const { joint, value } of body.joints) yield { body, atMs, joint, value };
}

/** A resistance from a drop at a current; null: no current was given. */
export const dropReading = (value: number, currentA: number | null, atMs: number): DropReading | null =>
  currentA === null || currentA === 0
    ? null
    : { ohm: Math.abs(value / currentA), currentA: Math.abs(currentA), atMs };
