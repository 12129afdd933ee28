import type { Design } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import type { Library } from '@torvek/core/library';
import { partKey, type Part } from '@torvek/core/parts';
import type { PartShelf } from './columns';

/** Parts that cells of a grid name: those that the design has pinned first, then the shop’s. */
export function partShelf(design: () => Design, shop: { library: Library }): PartShelf {
  const known = (key: string): Part | undefined => design().parts[key] ?? shop.library.find(key);
  return {
    nameOf: (key) => known(key)?.label ?? '',
    find(kind, text) {
      const wanted = text.toLowerCase();
      const all = [
        ...Object.values(design().parts).filter((part) => part.kind === kind),
        ...(shop.library.of(kind) as readonly Part[]),
      ];
      const found =
        all.find((part) => partKey(part) === text) ??
        all.find(({ label, number }) => [label, number].some((one) => one.toLowerCase() === wanted));
      return found === undefined ? null : { key: partKey(found) };
    },
    put(draft, key) {
      const part = known(key);
      if (part !== undefined) pin(draft as Design, part);
    },
    tidy: (draft) => unpinUnused(draft as Design),
  };
}
