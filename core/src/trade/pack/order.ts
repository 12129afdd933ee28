/** A place in the vehicle frame, m. */
export interface Place {
  xM: number;
  yM: number;
  zM: number;
}

/** Along the vehicle’s axes, as cables run. */
export const cableWayM = (a: Place, b: Place) =>
  Math.abs(a.xM - b.xM) + Math.abs(a.yM - b.yM) + Math.abs(a.zM - b.zM);

/**
 * The order of boxes with the shortest way from the mains through all of them and back, by dynamic programming over
 * subsets (Held and Karp). Of equals the one whose boxes come first in the list given.
 *
 * @param stops places of the boxes a string passes, at most 12
 * @param mains where the string begins and ends
 * @returns indices into `stops` in order, and the way in m
 */
export function shortestOrder(stops: readonly Place[], mains: Place): { order: number[]; wayM: number } {
  const n = stops.length;
  if (n > mostStops) throw new Error(`a string through more than ${mostStops} boxes is not ordered`);
  if (n === 0) return { order: [], wayM: 0 };
  const way = stops.map((a) => stops.map((b) => cableWayM(a, b)));
  const home = stops.map((stop) => cableWayM(stop, mains));
  const full = (1 << n) - 1;
  // best[set][last]: shortest way home from `last` through all boxes not in the set.
  const best = Array.from({ length: full + 1 }, () => new Float64Array(n).fill(Infinity));
  for (let last = 0; last < n; last += 1) best[full]![last] = home[last]!;
  for (let set = full - 1; set > 0; set -= 1)
    for (let last = 0; last < n; last += 1) {
      if ((set & (1 << last)) === 0) continue;
      for (let next = 0; next < n; next += 1) {
        if ((set & (1 << next)) !== 0) continue;
        const total = way[last]![next]! + best[set | (1 << next)]![next]!;
        if (total < best[set]![last]!) best[set]![last] = total;
      }
    }
  const starts = stops.map((_, i) => home[i]! + best[1 << i]![i]!);
  const wayM = Math.min(...starts);
  const order = [starts.findIndex((one) => one <= wayM + tie)];
  let set = 1 << order[0]!;
  while (order.length < n) {
    const last = order.at(-1)!;
    const next = stops.findIndex(
      (_, i) =>
        (set & (1 << i)) === 0 && way[last]![i]! + best[set | (1 << i)]![i]! <= best[set]![last]! + tie,
    );
    order.push(next);
    set |= 1 << next;
  }
  return { order, wayM };
}

const mostStops = 12;
const tie = 1e-9;
