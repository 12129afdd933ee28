import type { CycleMoment } from '../vehicle';

/** A pack answers within minutes: currents are taken together, with their heat, in stretches of about this, s. */
const blockS = 15;

/** The heat of a cycle in fewer stretches: each with the rms of the currents in it. */
export function blocksOf(moments: readonly CycleMoment[]): [durationS: number, currentA: number][] {
  const blocks: [number, number][] = [];
  let [lasts, heat] = [0, 0];
  moments.forEach(({ durationS, currentA }, i) => {
    lasts += durationS;
    heat += (currentA ?? 0) ** 2 * durationS;
    if (lasts < blockS && i < moments.length - 1) return;
    blocks.push([lasts, Math.sqrt(heat / lasts)]);
    [lasts, heat] = [0, 0];
  });
  return blocks;
}
