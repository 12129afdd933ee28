const gapPx = 15;

/**
 * Offsets that keep the labels at the ends of lines apart: each at its line, moved down or up where two would meet.
 *
 * @param ends where each line ends, px from the top of the plot
 * @param lowestPx below which no label goes
 * @returns by how many px each label is moved, by id
 */
export function spreadLabels(
  ends: readonly { id: string; yPx: number }[],
  lowestPx: number,
): Map<string, number> {
  const placed = [...ends].sort((a, b) => a.yPx - b.yPx);
  const at = placed.map(({ yPx }) => yPx);
  for (let i = 1; i < at.length; i += 1) at[i] = Math.max(at[i]!, at[i - 1]! + gapPx);
  if ((at.at(-1) ?? 0) > lowestPx)
    for (let i = at.length - 1, limit = lowestPx; i >= 0; i -= 1) {
      at[i] = Math.min(at[i]!, limit);
      limit = at[i]! - gapPx;
    }
  return new Map(placed.map(({ id, yPx }, i) => [id, at[i]! - yPx]));
}
