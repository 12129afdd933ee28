import { deriveCircuits } from './derive-circuit';
import { deriveStrings } from './derive-string';
import { placesOf, type NetworkSlices } from './feeding';
import { NetworkBuilder, type Network } from './network-builder';

/**
 * The high-voltage network of a design: every element with its terminals, and the symbols and lines of the one-line
 * diagram. Everything is closed. What the design does not say yet is left out, nothing is invented.
 */
export function deriveNetwork(design: NetworkSlices): Network {
  const builder = new NetworkBuilder();
  const places = placesOf(design);
  if (deriveStrings(builder, design, places)) deriveCircuits(builder, design, places);
  const used = new Set([...builder.symbols.values()].map(({ box }) => box));
  const boxes = Object.entries(design.boxes)
    .filter(([id]) => used.has(id))
    .map(([id, { tag }]) => ({ id, tag }));
  return builder.network(boxes);
}
