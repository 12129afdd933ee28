import type { Gap } from '../../ground/figure';
import type { BundleItem, Id, WireItem } from '../../model/document';
import type { Reader, SharedView } from '../../model/step';
import { loadCurrentA } from './load-current';
import { waysFrom, wiresByEnd, type LoomWay, type PinnedWire } from './looms';

/** Which wires end where, once per design. */
export const pinnedView: SharedView<Record<Id, PinnedWire[]>> = {
  id: 'looms.pinned',
  make: ({ wires }) => wiresByEnd({ wires: wires ?? {} }),
};
/** Ways through the bundles, by where they begin, once per design. */
export const waysView: SharedView<(from: Id) => Map<Id, LoomWay>> = {
  id: 'looms.ways',
  make: ({ bundles }) => {
    const plain: Record<Id, BundleItem> = {};
    for (const [id, { tag, from, to, lengthM }] of Object.entries(bundles ?? {}))
      plain[id] = {
        tag,
        ...(from !== undefined && { from }),
        ...(to !== undefined && { to }),
        ...(lengthM !== undefined && { lengthM }),
      };
    const known = new Map<Id, Map<Id, LoomWay>>();
    return (from) => {
      const found = known.get(from) ?? waysFrom(from, plain);
      known.set(from, found);
      return found;
    };
  },
};

/** What a wire carries, A: typed, else the loads that hang on it; null: nobody says. */
export function carriedA(
  { currentA, carries = [] }: WireItem,
  read: Reader,
): { value: number | null; gaps: Gap[] } {
  if (currentA !== undefined) return { value: currentA, gaps: [] };
  if (carries.length === 0) return { value: null, gaps: [] };
  const all = carries.map((id) => loadCurrentA(id, read));
  const gaps = all.flatMap((one) => one.gaps);
  return { value: gaps.length > 0 ? null : all.reduce((sum, one) => sum + one.value!, 0), gaps };
}
