import { catalogued, type Part, type PartKey } from '@torvek/core/parts';

/** Parts of the catalogue as a design pins them. */
export function pinned(keys: PartKey[]): Record<PartKey, Part> {
  return Object.fromEntries(
    keys.map((key) => {
      const part = catalogued(key);
      if (part === undefined) throw new Error(`the demo names ${key}, which the catalogue does not have`);
      return [key, part];
    }),
  );
}
