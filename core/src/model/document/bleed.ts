import type { Design } from './design';

/** What the monitor bleeds and where that is said: typed in the plan, or the parts of the boards; null: nobody says. */
export interface Bleed {
  currentA: number;
  typed: boolean;
}

/** The bleed of a pack. Boards that differ: the strongest, which the leads have to carry. */
export function bleedOf({
  pack,
  boards = {},
  parts,
}: Pick<Design, 'pack' | 'boards' | 'parts'>): Bleed | null {
  const typed = pack.balance?.bleedCurrentA;
  if (typed !== undefined) return { currentA: typed, typed: true };
  const own = Object.values(boards).flatMap(({ unit }) => {
    const part = parts[unit ?? ''];
    return part?.kind === 'unit' ? [part.data.bleedA] : [];
  });
  return own.length === 0 ? null : { currentA: Math.max(...own), typed: false };
}
