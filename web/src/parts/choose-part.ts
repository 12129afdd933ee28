import { mainCircuit, type Design } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { catalogued, type PartKind } from '@torvek/core/parts';

interface Changing {
  design: Design;
  change(label: string, recipe: (draft: Design) => void): void;
}

/** Chooses a part of the catalogue, or one pinned already, for the main circuit: one change. */
export function choosePart(job: Changing, kind: Exclude<PartKind, 'module'>, key: string): void {
  const part = job.design.parts[key] ?? catalogued(key);
  if (part === undefined || part.kind !== kind) return;
  job.change(`${names[kind]}: ${part.label}`, (draft) => {
    draft.circuits[mainCircuit]![kind] = pin(draft, part);
    unpinUnused(draft);
  });
}

const names = {
  contactor: 'Main contactors',
  resistor: 'Pre-charge resistor',
  fuse: 'Main fuse',
  cable: 'Traction cable',
};
