import { briefMistakes } from './brief';
import { insideMistakes } from './inside';
import { jointMistakes } from './joints';
import type { Mistake } from './mistake';
import { packMistakes } from './pack';
import { protectMistakes } from './protect';
import { slips } from './slips';

export type { Mistake } from './mistake';

/** Every mistake of the collection: each is made to each of the clean designs that has what it takes. */
export const mistakes: readonly Mistake[] = [
  ...briefMistakes,
  ...packMistakes,
  ...protectMistakes,
  ...insideMistakes,
  ...jointMistakes,
  ...slips,
];
