import type { NetworkSlices, Places } from './feeding';
import type { NetworkBuilder } from './network-builder';
import { packBus, packBusSymbol } from './pack-bus';
import { StringPath } from './string-path';

/** The strings up to the pack bus; false when there is no module in any. */
export function deriveStrings(builder: NetworkBuilder, design: NetworkSlices, places: Places): boolean {
  const filled = Object.entries(design.strings).filter(([, { modules }]) => modules.length > 0);
  if (filled.length === 0) return false;
  for (const [id, string] of filled) new StringPath(builder, design, places, id, string).derive();
  builder.symbol({
    id: packBusSymbol,
    kind: 'bus',
    tag: 'Pack bus',
    words: filled.length > 1 ? `${filled.length} strings meet` : 'both poles of the string',
    rating: '',
    box: places.combinerBox,
    terminals: [packBus.plus, packBus.minus],
    path: 'pack.combinerBox',
  });
  return true;
}
