import { mainCircuit, type CircuitPartKind, type Design, type Id } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { partKindNames } from '@torvek/core/parts';
import { useLibrary } from '../stores/library';

interface Changing {
  design: Design;
  change(label: string, recipe: (draft: Design) => void): void;
}

/** Chooses a part of the library, or one pinned already, for a circuit: one change. */
export function choosePart(job: Changing, circuit: Id, kind: CircuitPartKind, key: string): void {
  const part = job.design.parts[key] ?? useLibrary().library.find(key);
  const place = job.design.circuits[circuit];
  if (part === undefined || part.kind !== kind || place === undefined) return;
  const [one] = partKindNames[kind];
  const name =
    circuit === mainCircuit ? names[kind] : `${one[0]!.toUpperCase()}${one.slice(1)} of ${place.tag}`;
  job.change(`${name}: ${part.label}`, (draft) => {
    draft.circuits[circuit]![kind] = pin(draft, part);
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
