import { catalogue, partKey, partsList, type Part, type PartKey, type PartsList } from '../parts';

/** A part of the shop's own, at one revision: it never changes; a correction is the next revision. */
export interface OwnPart {
  part: Part;
  /** What this revision changed, or where it comes from. */
  note: string;
  savedBy: string;
  /** UTC. */
  savedAt: string;
}

/** What the shop can choose from: the starter catalogue and its own parts, each at its newest revision. */
export interface Library extends PartsList {
  /** Every part at its newest revision, the retired ones too. */
  newest: readonly Part[];
  /** Ids that are no longer offered. */
  retired: ReadonlySet<string>;
  find(key: PartKey): Part | undefined;
  /** All revisions of a part, oldest first. */
  revisions(id: string): readonly Part[];
}

/**
 * Joins the starter catalogue with the shop's own parts.
 *
 * @param own all revisions that were saved, in any order
 * @param retired ids that are no longer offered; designs that use them keep them
 */
export function makeLibrary(own: readonly OwnPart[], retired: Iterable<string>): Library {
  const byId = new Map<string, Part[]>();
  for (const part of [...catalogue, ...own.map((one) => one.part)])
    byId.set(part.id, [...(byId.get(part.id) ?? []), part]);
  for (const all of byId.values()) all.sort((a, b) => a.revision - b.revision);
  const newest = [...byId.values()].map((all) => all.at(-1)!);
  const gone = new Set(retired);
  const byKey = new Map([...byId.values()].flat().map((part) => [partKey(part), part]));
  const offered = partsList(newest.filter(({ id }) => !gone.has(id)));
  return {
    of: offered.of,
    newest,
    retired: gone,
    find: (key) => byKey.get(key),
    revisions: (id) => byId.get(id) ?? [],
  };
}

/** The library of a shop that has no part of its own. */
export const starterLibrary: Library = makeLibrary([], []);
