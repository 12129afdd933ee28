import type { PartData, PartOf } from '../kinds';

/** A part of the invented catalogue at its first revision. */
export function part<Kind extends keyof PartData>(
  kind: Kind,
  make: string,
  number: string,
  words: string,
  data: PartData[Kind],
): PartOf<Kind> {
  const id = `${make}-${number}`.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  return { id, revision: 1, kind, make, number, label: `${make} ${number}, ${words}`, data };
}
