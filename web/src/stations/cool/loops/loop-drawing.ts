import type { Spot } from './loop-graph';

/** The sign of each kind of piece, about its middle. */
export const glyphs: Record<string, string> = {
  pump: 'M-6,0 A6,6 0 1 1 6,0 A6,6 0 1 1 -6,0 M-3,-4 L5,0 L-3,4 Z',
  plate: 'M-7,-4 H7 V4 H-7 Z M-4,0 H4',
  jacket: 'M-6,-5 H6 V5 H-6 Z M-3,-2 H3 V2 H-3 Z',
  radiator: 'M-7,-5 V5 M-3.5,-5 V5 M0,-5 V5 M3.5,-5 V5 M7,-5 V5',
  heater: 'M-7,4 L-3.5,-4 L0,4 L3.5,-4 L7,4',
  valve: 'M-6,-5 L6,5 V-5 L-6,5 Z',
  tank: 'M-6,-5 V5 H6 V-5 M-6,0 H6',
};

/** Half of what a flow takes as text, and its height. */
const text = { halfPx: 16, highPx: 13 };

/**
 * Where the flow of a hose is written: above its line, or below it where a piece lies above.
 *
 * @param at the middle of its longest stretch
 * @param widthPx of the line
 */
export function textYOf(at: { x: number; y: number }, widthPx: number, pieces: readonly Spot[]): number {
  const { x, y } = at;
  const top = y - widthPx / 2 - 5 - text.highPx;
  const isCovered = pieces.some(
    (spot) =>
      x + text.halfPx > spot.x &&
      x - text.halfPx < spot.x + spot.width &&
      top < spot.y + spot.height &&
      y > spot.y,
  );
  return isCovered ? y + widthPx / 2 + text.highPx : y - widthPx / 2 - 5;
}
