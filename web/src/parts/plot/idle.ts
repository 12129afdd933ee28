/** Work for when the browser has nothing better to do: only the last that was asked for is done. */
export interface Idle {
  ask(run: () => void): void;
  drop(): void;
}

/** Done by then at the latest, ms, however busy it is. */
const latestMs = 400;

export function createIdle(): Idle {
  let waiting: (() => void) | null = null;
  let handle: number | null = null;
  const now = () => {
    handle = null;
    const run = waiting;
    waiting = null;
    run?.();
  };
  // Not every browser has the one, and no page is without the other.
  const has = typeof requestIdleCallback === 'function';
  return {
    ask(run) {
      waiting = run;
      handle ??= has ? requestIdleCallback(now, { timeout: latestMs }) : window.setTimeout(now, latestMs / 4);
    },
    drop() {
      if (handle !== null) (has ? cancelIdleCallback : clearTimeout)(handle);
      handle = null;
      waiting = null;
    },
  };
}
