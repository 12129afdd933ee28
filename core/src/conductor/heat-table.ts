import { heatCurves, hottestC, type HeatPath } from './heat';

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
    const size = 4000;
    this.stepC = (hottestC - fromC) / size;
    this.heats = new Float64Array(size + 1);
    const curves = heatCurves(path, fromC, hottestC, 1500);
    const at = curves.map(() => 0);
    for (let i = 0; i <= size; i += 1) {
      const wantedC = fromC + i * this.stepC;
      const found = curves.map((curve, k) => {
        while (at[k]! < curve.length - 2 && curve[at[k]! + 1]!.conductorC < wantedC) at[k]! += 1;
        const [low, high] = [curve[at[k]!]!, curve[at[k]! + 1]!];
        const share = (wantedC - low.conductorC) / (high.conductorC - low.conductorC);
        return low.heatWPerM + share * (high.heatWPerM - low.heatWPerM);
      });
      this.heats[i] = wantedC >= path.ambientC ? Math.min(...found) : Math.max(...found);
    }
  }

  /** W/m that leave at a conductor temperature between the table's ends; negative: it takes heat in. */
  at(conductorC: number): number {
    const place = Math.min(Math.max((conductorC - this.fromC) / this.stepC, 0), this.heats.length - 1.000001);
    const i = Math.floor(place);
    return this.heats[i]! + (place - i) * (this.heats[i + 1]! - this.heats[i]!);
  }

  /** The steepest rise of heat with temperature, W/(m·K): it sets the shortest time constant. */
  steepest(): number {
    let most = 0;
    for (let i = 1; i < this.heats.length; i += 1)
      most = Math.max(most, (this.heats[i]! - this.heats[i - 1]!) / this.stepC);
    return most;
  }
}
