import { isHoseRun, type Design, type Id } from '@torvek/core/document';

/** A run that ends at a box, and no opening of that box passes it. */
export interface Unlisted {
  run: Id;
  box: Id;
  hose: boolean;
  words: string;
}

export function unlisted({ runs = {}, boxes, openings = {} }: Design): Unlisted[] {
  const listed = Object.values(openings);
  return Object.entries(runs).flatMap(([id, run]) =>
    [...new Set([run.from, run.to])].flatMap((end): Unlisted[] => {
      const box = end === undefined ? undefined : boxes[end];
      if (end === undefined || box === undefined) return [];
      if (listed.some((one) => one.box === end && one.run === id)) return [];
      return [{ run: id, box: end, hose: isHoseRun(run), words: `${run.tag}, ${box.tag}` }];
    }),
  );
}
