import { arrange, type ArrangeInput, type ArrangeResult } from '@torvek/core/pack';
import { expose } from 'comlink';

/** How long the search works before it looks whether it should stop, ms. */
const sliceMs = 25;

let wanted = 0;

/** The door to the search for arrangements: it works in slices, tells how far it is, and stops when asked. */
const door = {
  /** @returns null when it was stopped, or another search began */
  async search(
    input: ArrangeInput,
    tell: (fraction: number, feasible: number) => void,
  ): Promise<ArrangeResult | null> {
    const own = (wanted += 1);
    const search = arrange(input);
    for (;;) {
      const until = performance.now() + sliceMs;
      let step = search.next();
      while (step.done !== true && performance.now() < until) step = search.next();
      if (step.done === true) return own === wanted ? step.value : null;
      tell(step.value.fraction, step.value.feasible);
      await new Promise((resolve) => setTimeout(resolve));
      if (own !== wanted) return null;
    }
  },
  stop(): void {
    wanted += 1;
  },
};

export type ArrangeDoor = typeof door;

expose(door);
