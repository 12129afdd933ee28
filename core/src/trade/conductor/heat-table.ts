import { heatCurves, hottestC, type HeatPath } from './heat';

// Bound once: the inner loops ask for these a million times.
const { floor, max, min } = Math;

/**
 * The heat that leaves at each conductor temperature, worked out once for a run of many steps: even steps of
 * temperature, straight between them.
 */
export class HeatTable {
  private readonly heats: Float64Array;
  private readonly stepC: number;

  constructor(
    path: HeatPath,
    private readonly fromC: number,
  ) {
    const size = 800;
    this.stepC = (hottestC - fromC) / size;
    this.heats = new Float64Array(size + 1);
    const curves = heatCurves(path, fromC, hottestC, 300);
    const at = curves.map(() => 0);
    for (let i = 0; i <= size; i += 1) {
      const wantedC = fromC + i * this.stepC;
      const found = curves.map((curve, k) => {
        while (at[k]! < curve.length - 2 && curve[at[k]! + 1]!.conductorC < wantedC) at[k]! += 1;
        const [low, high] = [curve[at[k]!]!, curve[at[k]! + 1]!];
        const share = (wantedC - low.conductorC) / (high.conductorC - low.conductorC);
        return low.heatWPerM + share * (high.heatWPerM - low.heatWPerM);
      });
      this.heats[i] = wantedC >= path.ambientC ? min(...found) : max(...found);
    }
  }

  /** W/m that leave at a conductor temperature between the table's ends; negative: it takes heat in. */
  at(conductorC: number): number {
    const place = min(max((conductorC - this.fromC) / this.stepC, 0), this.heats.length - 1.000001);
    const i = floor(place);
    return this.heats[i]! + (place - i) * (this.heats[i + 1]! - this.heats[i]!);
  }

  /** The steepest rise of heat with temperature, W/(m·K): it sets the shortest time constant. */
  steepest(): number {
    let most = 0;
    for (let i = 1; i < this.heats.length; i += 1)
      most = max(most, (this.heats[i]! - this.heats[i - 1]!) / this.stepC);
    return most;
  }
}

const kept = new Map<string, HeatTable>();
const mostKept = 64;

/** The table of a way out; those used last are kept, for a circuit's way out changes far more seldom than its load. */
export function heatTable(path: HeatPath, fromC: number): HeatTable {
  const key = JSON.stringify([path, fromC]);
  const found = kept.get(key) ?? new HeatTable(path, fromC);
  kept.delete(key);
  kept.set(key, found);
  if (kept.size > mostKept) kept.delete(kept.keys().next().value!);
  return found;
}
