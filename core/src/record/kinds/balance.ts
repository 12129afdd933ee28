import { list, number, oneOf, orNull } from '../../ground/shape';
import { defineKind } from '../kind';
import type { Detail } from '../measured';
import { detail, ids, remark } from '../shapes';

/** What puts charge into cells, or takes it out. */
export const balanceGear = ['load', 'bleed', 'charger', 'joined'] as const;
export type BalanceGear = (typeof balanceGear)[number];

/** A load, bleed, charger or joint comes onto cells, or off them; off, their rest begins. */
export interface BalanceBody {
  kind: 'balance';
  act: 'on' | 'off';
  gear: BalanceGear;
  cells: string[];
  /** Bench, from 1. */
  place: number | null;
  /** What the plan said then. */
  recipe: Detail[];
  remark?: string;
}

const gearText: Record<BalanceGear, { on: string; off: string }> = {
  load: { on: 'Load onto', off: 'Load off' },
  bleed: { on: 'Bleeding begun on', off: 'Bleeding ended on' },
  charger: { on: 'Charger onto', off: 'Charger off' },
  joined: { on: 'Joined to the bars:', off: 'Parted from the bars:' },
};

export const balance = defineKind<BalanceBody>({
  kind: 'balance',
  many: 'balancing',
  fields: {
    act: oneOf(['on', 'off']),
    gear: oneOf(balanceGear),
    cells: ids(2000),
    place: orNull(number({ min: 1, integer: true })),
    recipe: list(detail, { maxRows: 200 }),
    remark,
  },
  stands: 'always',
  title: ({ act, gear, cells, place }) =>
    `${gearText[gear][act]} ${cells.length === 1 ? 'one cell' : `${cells.length} cells`}${place === null ? '' : `, bench ${place}`}`,
});
