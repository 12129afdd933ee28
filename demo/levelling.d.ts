import type { StoryLine } from './story';
/** Demo A: a damaged module is replaced and brought level; all cells are levelled at full. */
export declare function levelAtFull(
  modules: readonly {
    id: string;
  }[],
  replaced: string,
): StoryLine[];
/**
 * Demo B: cells are levelled at empty, four a day; some have settled, some rest, four are under load, the rest wait.
 * Told up to the present.
 */
export declare function levelAtEmpty(
  modules: readonly {
    id: string;
  }[],
  now: Date,
): StoryLine[];
