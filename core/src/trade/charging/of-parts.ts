import type { Check } from '../../ground/figure';
import type { PartKey } from '../../model/parts';

/** A raised check with the parts that it was judged of: an acceptance lapses when another takes their place. */
export const ofParts = (check: Check, parts: readonly PartKey[]): Check =>
  check.state === 'raised' ? { ...check, parts: [...new Set([...check.parts, ...parts])] } : check;
