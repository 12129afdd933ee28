/** Work that waits for the browser to paint what was typed: the last one asked for runs, earlier ones are dropped. */
export interface AfterPaint {
  ask(run: () => void): void;
  /** What still waits is not wanted any more. */
  drop(): void;
}

/** A page that is not shown paints nothing: then what waits runs after this time. */
const latestMs = 100;

/** @param paints calls back before the next paint; without one, as in a test, time alone counts */
export function createAfterPaint(
  paints: ((run: () => void) => void) | null = typeof requestAnimationFrame === 'function'
    ? (run) => void requestAnimationFrame(run)
    : null,
): AfterPaint {
  let waiting: (() => void) | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let asked = 0;

  function now(of: number): void {
    if (of !== asked || waiting === null) return;
    clearTimeout(timer);
    const run = waiting;
    waiting = null;
    run();
  }

  return {
    ask(run) {
      const first = waiting === null;
      waiting = run;
      // One that waits already has its turn: keys that follow fast must not put it off for ever.
      if (!first) return;
      const of = (asked += 1);
      timer = setTimeout(() => now(of), latestMs);
      paints?.(() => void setTimeout(() => now(of)));
    },
    drop() {
      waiting = null;
      asked += 1;
      clearTimeout(timer);
    },
  };
}
