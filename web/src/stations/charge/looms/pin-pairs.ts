/** Pins of an adapter as they are typed: “1-3, 2-5”; any sign may part the two. */
export const pinText = (pins: readonly (readonly [number, number])[]): string =>
  pins.map(([here, there]) => `${here}-${there}`).join(', ');

/**
 * Reads them again.
 *
 * @returns the pairs, or what cannot be read
 */
export function readPins(text: string): { pins: [number, number][] } | { problem: string } {
  const pins: [number, number][] = [];
  for (const piece of text.split(/[,;\n]+/)) {
    const said = piece.trim();
    if (said === '') continue;
    const found = /^(\d{1,3})\s*(?:-|–|→|>|:|=|\s)+\s*(\d{1,3})$/.exec(said);
    if (found === null) return { problem: `“${said}” is no pair of pins, such as 1-3` };
    pins.push([Number(found[1]), Number(found[2])]);
  }
  return { pins };
}
