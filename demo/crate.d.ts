import type { StoryLine } from './story';
export declare const thingIn: (serial: string) => string;
export declare const crate: {
  failed: string;
  spare: string;
};
/** Arrives, and sixteen of it are fitted: in their order, the one that fails later in the last place. */
export declare function crateArrives(
  places: readonly {
    id: string;
  }[],
): StoryLine[];
