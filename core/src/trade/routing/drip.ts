import { distance, type Vector } from '../../ground/math';

/** The last of a cable before its entry: what falls on it runs along it to there. */
const nearM = 0.6;
export const dropM = 0.02;

/** How far a cable hangs below its entry before it rises above it, m; null: it never rises above it. */
export function dropBefore(outwards: readonly Vector[]): number | null {
  const entry = outwards[0]!;
  let wayM = 0;
  let lowestM = entry[2];
  for (let i = 1; i < outwards.length; i += 1) {
    wayM += distance(outwards[i - 1]!, outwards[i]!);
    if (wayM > nearM) return null;
    const z = outwards[i]![2];
    lowestM = Math.min(lowestM, z);
    if (z > entry[2] + dropM) return entry[2] - lowestM;
  }
  return null;
}

/** Whether water that falls on the cable runs into its entry. */
export const leadsIn = (hangsM: number | null): boolean => hangsM !== null && hangsM < dropM - 1e-9;
