import { mainCircuit, type Design, type Id } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { catalogued, type PartKind } from '@torvek/core/parts';

interface Changing {
  design: Design;
  change(label: string, recipe: (draft: Design) => void): void;
}

/** Chooses a part of the catalogue, or one pinned already, for a circuit: one change. */
export function choosePart(job: Changing, circuit: Id, kind: Exclude<PartKind, 'module'>, key: string): void {
  const part = job.design.parts[key] ?? catalogued(key);
  const place = job.design.circuits[circuit];
  if (part === undefined || part.kind !== kind || place === undefined) return;
  const name =
    circuit === mainCircuit
      ? names[kind]
      : `${kind === 'fuse' ? 'Fuse' : kind === 'cable' ? 'Cable' : names[kind]} of ${place.tag}`;
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
};
