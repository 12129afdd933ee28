import { mainCircuit, type CircuitPartKind, type Design, type Id } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { partKindNames } from '@torvek/core/parts';
import { useLibrary } from '../stores/library';

interface Changing {
  design: Design;
  change(label: string, recipe: (draft: Design) => void): void;
}

/** A part that is exchanged together with another: the lug of a cable of another area. */
export interface AlongPart {
  kind: CircuitPartKind;
  partKey: string;
}

/**
 * Chooses a part of the library, or one pinned already, for a circuit: one change.
 *
 * @param along what has to be exchanged with it, in the same change
 */
export function choosePart(
  job: Changing,
  circuit: Id,
  kind: CircuitPartKind,
  key: string,
  along: readonly AlongPart[] = [],
): void {
  const find = (one: string) => job.design.parts[one] ?? useLibrary().library.find(one);
  const part = find(key);
  const place = job.design.circuits[circuit];
  if (part === undefined || part.kind !== kind || place === undefined) return;
  const others = along.flatMap((one) => {
    const found = find(one.partKey);
    return found === undefined || found.kind !== one.kind ? [] : [{ kind: one.kind, part: found }];
  });
  const [one] = partKindNames[kind];
  const name =
    circuit === mainCircuit ? names[kind] : `${one[0]!.toUpperCase()}${one.slice(1)} of ${place.tag}`;
  const withThem = others.map((one) => `, with ${one.part.label}`).join('');
  job.change(`${name}: ${part.label}${withThem}`, (draft) => {
    draft.circuits[circuit]![kind] = pin(draft, part);
    for (const one of others) draft.circuits[circuit]![one.kind] = pin(draft, one.part);
    unpinUnused(draft);
  });
}

const names = {
  contactor: 'Main contactors',
  resistor: 'Pre-charge resistor',
  fuse: 'Main fuse',
  cable: 'Traction cable',
  lug: 'Lugs of the traction cable',
  gland: 'Gland of the traction cable',
};
