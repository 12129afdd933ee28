import { propose, type Proposal, type ProposeInput } from '@torvek/core/routing';
import { expose } from 'comlink';

/** How long the search works before it looks whether it should stop, ms. */
const sliceMs = 25;

let wanted = 0;

/** The door to the search for ways: it works in slices, tells how far it is, and stops when asked. */
const door = {
  /** @returns null when it was stopped, or another search began */
  async search(input: ProposeInput, tell: (fraction: number) => void): Promise<Proposal[] | null> {
    const own = (wanted += 1);
    const search = propose(input);
    for (;;) {
      const until = performance.now() + sliceMs;
      let step = search.next();
      while (step.done !== true && performance.now() < until) step = search.next();
      if (step.done === true) return own === wanted ? step.value : null;
      tell(step.value);
      await new Promise((resolve) => setTimeout(resolve));
      if (own !== wanted) return null;
    }
  },
  stop(): void {
    wanted += 1;
  },
};

export type WaysDoor = typeof door;

expose(door);
