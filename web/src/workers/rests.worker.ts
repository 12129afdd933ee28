import { outlookOf, type LevelTarget, type Outlook } from '@torvek/core/balance';
import { expose } from 'comlink';

/** The door to the fits of resting cells: none of them holds up the page. */
const door = {
  /** In the order of the cells handed over. */
  outlooks(samples: [hours: number, voltageV: number][][], target: LevelTarget): Outlook[] {
    return samples.map((own) => outlookOf(own, target));
  },
};

export type RestsDoor = typeof door;

expose(door);
