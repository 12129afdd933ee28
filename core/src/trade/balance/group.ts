/** A module with what was measured of it. */
export interface GroupModule {
  id: string;
  capacityAh: number;
  resistanceOhm?: number;
}

/** Modules in series form strings; modules side by side form steps of one string. */
export type GroupWay = 'series' | 'parallel';

export interface ModuleGroup {
  ids: string[];
  /** In series that of the weakest; side by side their sum. */
  capacityAh: number;
  /** null: not measured of every one. */
  resistanceOhm: number | null;
  /** Side by side: the largest share of the current over an even one, less 1; null in series or unmeasured. */
  shareOver: number | null;
}

export interface Grouping {
  groups: ModuleGroup[];
  /** What the pack can give: strings add up; of steps the weakest counts. */
  packAh: number;
  /** By the order in which they came. */
  asTheyComeAh: number;
  /** Modules that are left over, the ones that fit least. */
  left: string[];
}

/**
 * Groups measured modules so that the pack loses least. Strings: sorted by capacity and cut, which is the best there is,
 * for the weakest of each sets it. Steps: large with small, and as they came, each then exchanged two by two and
 * parted anew while the weakest step gains, or stays and resistances come closer; the better of both.
 *
 * @param size modules in a group
 * @throws when a group is not of 1 or more
 */
export function groupModules(modules: readonly GroupModule[], size: number, way: GroupWay): Grouping {
  if (!(size >= 1) || !Number.isInteger(size)) throw new Error('a group has 1 module or more');
  const count = Math.floor(modules.length / size);
  const sorted = [...modules].sort((a, b) => b.capacityAh - a.capacityAh || (a.id < b.id ? -1 : 1));
  // The weakest are left over.
  const used = sorted.slice(0, count * size);
  const asTheyCome = cut(modules.slice(0, count * size), size);
  const groups = way === 'series' ? cut(used, size) : bestOf(paired(used, count), settled(asTheyCome, used));
  return {
    groups: groups.map((own) => groupOf(own, way)),
    packAh: packOf(groups, way),
    asTheyComeAh: packOf(asTheyCome, way),
    left: sorted.slice(count * size).map(({ id }) => id),
  };
}

const cut = <T>(list: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.floor(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));
const sumOf = (own: readonly GroupModule[]) => own.reduce((sum, { capacityAh }) => sum + capacityAh, 0);
const weakestOf = (own: readonly GroupModule[]) => Math.min(...own.map(({ capacityAh }) => capacityAh));

function packOf(groups: readonly GroupModule[][], way: GroupWay): number {
  if (groups.length === 0) return 0;
  return way === 'series'
    ? groups.reduce((sum, own) => sum + weakestOf(own), 0)
    : Math.min(...groups.map(sumOf));
}

/** The next largest goes to the group that has least and still has room; then exchanges. */
function paired(modules: readonly GroupModule[], count: number): GroupModule[][] {
  const size = count === 0 ? 0 : modules.length / count;
  const groups: GroupModule[][] = Array.from({ length: count }, () => []);
  for (const module of modules) {
    const open = groups.filter((own) => own.length < size);
    open.reduce((least, own) => (sumOf(own) < sumOf(least) ? own : least)).push(module);
  }
  return settle(groups);
}

/** As they came, the weak ones that are left over exchanged for those that are used; then exchanges. */
function settled(asTheyCome: readonly GroupModule[][], used: readonly GroupModule[]): GroupModule[][] {
  const came = new Set(asTheyCome.flat());
  const fresh = used.filter((one) => !came.has(one));
  const kept = new Set(used);
  const groups = asTheyCome.map((own) => own.map((one) => (kept.has(one) ? one : fresh.pop()!)));
  return settle(groups);
}

/** Exchanges two by two until none helps; then any two groups parted anew, which two exchanges at once may need. */
function settle(groups: GroupModule[][]): GroupModule[][] {
  for (let round = 0; round < 200 && (exchange(groups) || partAnew(groups)); round += 1);
  return groups;
}

const bestOf = (a: GroupModule[][], b: GroupModule[][]) =>
  packOf(b, 'parallel') > packOf(a, 'parallel') ? b : a;

/** Makes the exchange of two modules that helps most between the two groups it touches; false: none helps. */
function exchange(groups: GroupModule[][]): boolean {
  let best: { gain: number; swap: () => void } | null = null;
  for (let a = 0; a < groups.length; a += 1)
    for (let b = a + 1; b < groups.length; b += 1) {
      const before = costOf(groups[a]!) + costOf(groups[b]!) + apart(groups[a]!, groups[b]!);
      for (let i = 0; i < groups[a]!.length; i += 1)
        for (let j = 0; j < groups[b]!.length; j += 1) {
          const one = groups[a]!.with(i, groups[b]![j]!);
          const other = groups[b]!.with(j, groups[a]![i]!);
          const gain = before - costOf(one) - costOf(other) - apart(one, other);
          if (gain > 1e-9 && gain > (best?.gain ?? 0))
            best = {
              gain,
              swap: () => {
                groups[a] = one;
                groups[b] = other;
              },
            };
        }
    }
  best?.swap();
  return best !== null;
}

/** Larger groups have too many ways to be parted. */
const largestParted = 6;

/** Parts the first two groups anew that gain by it; false: none does. */
function partAnew(groups: GroupModule[][]): boolean {
  for (let a = 0; a < groups.length; a += 1)
    for (let b = a + 1; b < groups.length; b += 1) {
      const all = [...groups[a]!, ...groups[b]!];
      const size = groups[a]!.length;
      if (size > largestParted) return false;
      const cost = (one: GroupModule[], other: GroupModule[]) =>
        costOf(one) + costOf(other) + apart(one, other);
      let least = cost(groups[a]!, groups[b]!) - 1e-9;
      let found = false;
      // The first module stays: the other half would only name the groups the other way round.
      for (let mask = 1; mask < 1 << all.length; mask += 2) {
        const one = all.filter((_, i) => (mask >> i) & 1);
        if (one.length !== size) continue;
        const other = all.filter((_, i) => !((mask >> i) & 1));
        const here = cost(one, other);
        if (here >= least) continue;
        [least, found, groups[a], groups[b]] = [here, true, one, other];
      }
      if (found) return true;
    }
  return false;
}

/** Squares pull the sums together, and so lift the lowest. */
const apart = (a: readonly GroupModule[], b: readonly GroupModule[]) => (sumOf(a) - sumOf(b)) ** 2;
/** A little weight for unlike resistances side by side: they share the current unevenly. */
const costOf = (own: readonly GroupModule[]) => 1e-4 * (shareOf(own) ?? 0) ** 2;

function shareOf(own: readonly GroupModule[]): number | null {
  if (own.some(({ resistanceOhm }) => resistanceOhm === undefined || resistanceOhm <= 0)) return null;
  const conductances = own.map(({ resistanceOhm }) => 1 / resistanceOhm!);
  const total = conductances.reduce((sum, one) => sum + one, 0);
  return (Math.max(...conductances) * own.length) / total - 1;
}

function groupOf(own: readonly GroupModule[], way: GroupWay): ModuleGroup {
  const known = own.every(({ resistanceOhm }) => resistanceOhm !== undefined);
  const ohms = own.map(({ resistanceOhm }) => resistanceOhm ?? 0);
  return {
    ids: own.map(({ id }) => id),
    capacityAh: way === 'series' ? weakestOf(own) : sumOf(own),
    resistanceOhm: !known
      ? null
      : way === 'series'
        ? ohms.reduce((sum, ohm) => sum + ohm, 0)
        : 1 / ohms.reduce((sum, ohm) => sum + 1 / ohm, 0),
    shareOver: way === 'series' ? null : shareOf(own),
  };
}
