import { cables } from './catalogue/cables';
import { modules } from './catalogue/modules';
import { coolants, fans, heaters, hoses, plates, pumps, radiators } from './catalogue/cooling';
import { breakers, chargers, controllers, converters, inlets } from './catalogue/charging';
import { contactors, fuses, resistors } from './catalogue/protection';
import { batteries, connectors, relays, units, wires } from './catalogue/looms';
import { disconnects, plugs } from './catalogue/separable';
import { glands, lugs } from './catalogue/terminations';
import { partKey, type Part, type PartKey, type PartKind, type PartOf } from './kinds';

export * from './copper';
export * from './fields';
export * from './part-schema';
export * from './kinds';
export { impossibleIn } from './impossible';
export { usualOfPart } from './usual';
export { typicalOcv } from './catalogue/modules';
export { typicalCellV, typicalModule, type LabelledModule } from './typical';

/** The invented starter catalogue. */
export const catalogue: readonly Part[] = [
  ...modules,
  ...contactors,
  ...fuses,
  ...cables,
  ...resistors,
  ...lugs,
  ...glands,
  ...disconnects,
  ...plugs,
  ...pumps,
  ...plates,
  ...radiators,
  ...hoses,
  ...fans,
  ...heaters,
  ...coolants,
  ...chargers,
  ...inlets,
  ...converters,
  ...breakers,
  ...controllers,
  ...batteries,
  ...connectors,
  ...wires,
  ...relays,
  ...units,
];

/** Parts to choose from: the same list for the same kind as long as nothing changes. */
export interface PartsList {
  of<Kind extends PartKind>(kind: Kind): readonly PartOf<Kind>[];
}

/** A list of parts, sorted out by kind once. */
export function partsList(parts: readonly Part[]): PartsList {
  const byKind = new Map<PartKind, Part[]>();
  for (const part of parts) byKind.set(part.kind, [...(byKind.get(part.kind) ?? []), part]);
  const none: Part[] = [];
  return {
    of: <Kind extends PartKind>(kind: Kind) =>
      (byKind.get(kind) ?? none) as Part[] as unknown as readonly PartOf<Kind>[],
  };
}

/** The starter catalogue as a list to choose from. */
export const starterParts = partsList(catalogue);

/** The catalogue's parts of one kind, in its order. */
export function catalogueOf<Kind extends PartKind>(kind: Kind): readonly PartOf<Kind>[] {
  return starterParts.of(kind);
}

/** A part of the catalogue by key, or undefined. */
export function catalogued(key: PartKey): Part | undefined {
  return catalogue.find((part) => partKey(part) === key);
}
