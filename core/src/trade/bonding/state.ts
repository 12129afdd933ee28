import type { Design } from '../../model/document';
import { dropReading, walked, type DropReading, type Told } from '../../record';
import type { Body } from './bodies';
import { measuredBodies } from './measured';

/** Where the bond of one body stands. */
export interface BondState extends Body {
  reading: DropReading | null;
}

/** What the record says of every body’s bond. */
export function bondStates(
  design: Pick<Design, 'boxes' | 'devices' | 'circuits' | 'bonds'>,
  entries: readonly Told[],
): BondState[] {
  const states = new Map(
    measuredBodies(design).map((body): [string, BondState] => [body.id, { ...body, reading: null }]),
  );
  for (const { body, atMs, joint, value } of walked(entries)) {
    const state = states.get(joint);
    if (body.work === 'bond' && state !== undefined) state.reading = dropReading(value, body.currentA, atMs);
  }
  return [...states.values()];
}
