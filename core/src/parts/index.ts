import { cables } from './catalogue/cables';
import { modules } from './catalogue/modules';
import { contactors, fuses, resistors } from './catalogue/protection';
import { partKey, type Part, type PartKey, type PartKind, type PartOf } from './kinds';

export * from './copper';
export * from './kinds';
export { typicalOcv } from './catalogue/modules';

/** The invented starter catalogue. */
export const catalogue: readonly Part[] = [...modules, ...contactors, ...fuses, ...cables, ...resistors];

/** The catalogue's parts of one kind, in its order. */
export function catalogueOf<Kind extends PartKind>(kind: Kind): PartOf<Kind>[] {
  return catalogue.filter(
    (part): part is Extract<Part, PartOf<Kind>> => part.kind === kind,
  ) as PartOf<Kind>[];
}

/** A part of the catalogue by key, or undefined. */
export function catalogued(key: PartKey): Part | undefined {
  return catalogue.find((part) => partKey(part) === key);
}
