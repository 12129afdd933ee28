import { list, number, oneOf, record, text } from '@torvek/core/shape';
import { bleedOf } from '@torvek/core/document';
import { balanceGear, type BalanceGear, type Detail } from '@torvek/core/record';
import { HttpError } from '../../http/errors';
import { cellsOf, modulesOf } from '../cells';
import { defineJudge } from '../court';

export interface BalanceRequest {
  kind: 'balance';
  act: 'on' | 'off';
  gear: BalanceGear;
  cells: string[];
  place?: number;
  remark?: string;
  /** What it was done with and towards, where no plan says so. */
  recipe?: { label: string; value: number; unit: string }[];
}

/** A load, bleed, charger or joint on cells that are off, or off cells that are on. */
export const balance = defineJudge<BalanceRequest>({
  fields: {
    act: oneOf(['on', 'off']),
    gear: oneOf(balanceGear),
    cells: list(text(120), { minRows: 1, maxRows: 1000 }),
    place: number.optional({ min: 1, max: 500, integer: true }),
    remark: text.optional(2000),
    recipe: list.optional(record({ label: text(80), value: number(), unit: text(20, { min: 0 }) }), {
      maxRows: 20,
    }),
  },
  judge({ request: { act, gear, cells, place, remark, recipe: said }, bench }) {
    const known = cellsOf(bench, cells, (i) => `cells.${i}`);
    const wrong = known.filter(({ phase }) => (phase === 'on') === (act === 'on'));
    if (wrong.length > 0)
      throw new HttpError(
        409,
        'not-so',
        `${wrong
          .slice(0, 6)
          .map(({ tag }) => tag)
          .join(', ')} ${act === 'on' ? 'is on already: take it off first' : 'is not on'}`,
      );
    const plan = bench.job.design.pack.balance ?? {};
    const recipe: Detail[] = [];
    const say = (label: string, value: number | undefined, unit: string) => {
      if (value !== undefined) recipe.push({ label, value, unit });
    };
    if (said !== undefined) recipe.push(...said);
    else if (gear === 'load') {
      say('load', plan.loadOhm, 'Ω');
      say('cut-off', plan.cutOffV, 'V');
      say('on again at', plan.engageV, 'V');
      say('hours', plan.drawHours, 'h');
    } else if (gear === 'bleed') say('bleed', bleedOf(bench.job.design)?.currentA, 'A');
    return {
      subjects: modulesOf(known),
      body: {
        kind: 'balance',
        act,
        gear,
        cells,
        place: place ?? known[0]?.place ?? null,
        recipe,
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
