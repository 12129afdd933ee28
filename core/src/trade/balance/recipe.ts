import { medianOf } from './outliers';

/** A cell that was drawn down ahead of the batch to find the recipe. */
export interface Pilot {
  id: string;
  cutOffV: number;
  /** Under the load, recovering and drawing again. */
  hours: number;
  /** Where it settled, measured or predicted. */
  settledV: number;
}

export interface Recipe {
  cutOffV: number;
  hours: number;
  /** From the cut-off to where a cell settles: the middle of the pilots of these hours. */
  reboundV: number;
  pilots: number;
  /** Where each pilot of these hours would settle by this recipe. */
  landing: { id: string; settlesV: number; inside: boolean }[];
  /** Share of them within the tolerance. */
  insideFraction: number;
}

export type RecipeOutcome =
  { ok: true; recipe: Recipe; others: Recipe[]; doubts: string[] } | { ok: false; because: string };

/** Fewer pilots say nothing about the batch. */
export const leastPilots = 3;

/**
 * Cut-off and hours for the batch from a few pilots: of each length of draw the rebound's middle is taken off the
 * target; the shortest draw whose pilots would all land within the tolerance is the recipe.
 *
 * Source: rebound = settled voltage − cut-off, taken not to depend on a small move of the cut-off.
 *
 * @param minV lowest voltage the cell's maker allows
 */
export function recipeOf(
  pilots: readonly Pilot[],
  targetV: number,
  toleranceV: number,
  minV: number,
): RecipeOutcome {
  if (pilots.length < leastPilots)
    return {
      ok: false,
      because: `${pilots.length} of at least ${leastPilots} pilots have settled or can be predicted`,
    };
  const byHours = new Map<number, Pilot[]>();
  for (const pilot of pilots) {
    const hours = Math.round(pilot.hours * 2) / 2;
    byHours.set(hours, [...(byHours.get(hours) ?? []), pilot]);
  }
  const recipes = [...byHours]
    .sort(([a], [b]) => a - b)
    .map(([hours, own]): Recipe => {
      const reboundV = medianOf(own.map(({ settledV, cutOffV }) => settledV - cutOffV))!;
      const cutOffV = targetV - reboundV;
      const landing = own.map(({ id, settledV, cutOffV: from }) => {
        const settlesV = cutOffV + settledV - from;
        return { id, settlesV, inside: Math.abs(settlesV - targetV) <= toleranceV + 1e-9 };
      });
      return {
        cutOffV,
        hours,
        reboundV,
        pilots: own.length,
        landing,
        insideFraction: landing.filter(({ inside }) => inside).length / landing.length,
      };
    });
  const enough = recipes.filter((one) => one.pilots >= leastPilots);
  const allowed = (enough.length > 0 ? enough : recipes).filter(({ cutOffV }) => cutOffV >= minV);
  if (allowed.length === 0)
    return {
      ok: false,
      because: `every recipe would cut off below ${minV} V, the cell’s minimum: longer draws rebound less, or the target is too low`,
    };
  const best =
    allowed.find(({ insideFraction }) => insideFraction === 1) ??
    allowed.reduce((one, other) => (other.insideFraction > one.insideFraction ? other : one));
  return {
    ok: true,
    recipe: best,
    others: recipes.filter((one) => one !== best),
    doubts: [
      ...(best.pilots < leastPilots ? [`only ${best.pilots} pilots were drawn for ${best.hours} h`] : []),
      ...(best.insideFraction < 1
        ? [
            `only ${best.landing.filter(({ inside }) => inside).length} of ${best.pilots} pilots would land within the tolerance: a longer draw rebounds more evenly`,
          ]
        : []),
      ...(best.landing.some(({ id }) => pilots.find((one) => one.id === id)!.cutOffV - best.cutOffV > 0.2)
        ? ['the cut-off moves by more than 0.2 V from the pilots’: draw new pilots with it before the batch']
        : []),
    ],
  };
}
