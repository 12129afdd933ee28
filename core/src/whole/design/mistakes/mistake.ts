import {
  mainCircuit,
  removeCircuit,
  removeDevice,
  type CircuitItem,
  type Design,
  type Id,
  type StringItem,
} from '../../../model/document';
import { starterParts, type Part, type PartKind, type PartOf } from '../../../model/parts';
import { pin } from '../../../trade/pack';
import type { Grade } from '../../../ground/finding';

/** One thing done wrong to a design that is right, and what must be said of it. */
export interface Mistake {
  /** What is wrong, as one would tell a colleague. */
  says: string;
  /** The least grade with which it must be raised; `unchecked`: what cannot be judged for it must say so. */
  grade: Grade | 'unchecked';
  /** One of the subjects of the finding; for what is unchecked, the place that is to be filled. */
  about: string | ((draft: Design) => string);
  /** Does it; `absent`, or false without a change, where the design has nothing to do it to. */
  make(draft: Design): unknown;
}

/** The design has nothing to make a mistake to. */
export const absent = Symbol('absent');

/** Mistakes of one grade, each by its words: `mend('the cable is thin', 'circuit-main', …)`. */
const of =
  (grade: Mistake['grade']) =>
  (says: string, about: Mistake['about'], make: Mistake['make']): Mistake => ({ says, grade, about, make });
export const stop = of('stop');
export const mend = of('mend');
export const note = of('note');
export const unchecked = of('unchecked');

export const main = (draft: Design): CircuitItem => draft.circuits[mainCircuit]!;
export const firstString = (draft: Design): StringItem => Object.values(draft.strings)[0]!;
export const firstStringId = (draft: Design): Id => Object.keys(draft.strings)[0]!;
export const firstModule = (draft: Design): Id => firstString(draft).modules[0]!;
export const firstBox = (draft: Design): Id => Object.keys(draft.boxes)[0]!;
export const lastBox = (draft: Design): Id => Object.keys(draft.boxes).at(-1)!;
export const branchId = (draft: Design): Id =>
  Object.keys(draft.circuits).find((id) => draft.circuits[id]!.role === 'branch')!;
export const branch = (draft: Design): CircuitItem => draft.circuits[branchId(draft)]!;
export const branchDevice = (draft: Design): Id => branch(draft).device!;
/** Above the touch limit, so that what is asked of high voltage is asked of it. */
export const isHigh = (draft: Design): boolean => draft.devices['device-inverter']!.maxV! > 70;
export const severalStrings = (draft: Design): boolean => Object.keys(draft.strings).length > 1;

/** The pinned part of a kind that something of the design uses, to be written on. */
export function partAt<Kind extends PartKind>(
  draft: Design,
  kind: Kind,
  key: string | undefined,
): PartOf<Kind>['data'] {
  const part = draft.parts[key ?? ''];
  if (part?.kind !== kind) throw new Error(`no ${kind} here`);
  return part.data as PartOf<Kind>['data'];
}
export const moduleData = (draft: Design) => partAt(draft, 'module', draft.modules[firstModule(draft)]!.part);

/** A part of the starter catalogue, pinned. */
export const pinned = (draft: Design, kind: PartKind, id: string) =>
  pin(draft, starterParts.of(kind).find((part) => part.id === id)! as Part);
/** A copy of a pinned part under another key, its data written on: one item alone has it. */
export function anotherOf<Kind extends PartKind>(
  draft: Design,
  kind: Kind,
  key: string | undefined,
  write: (data: PartOf<Kind>['data']) => void,
): string {
  const copy = JSON.parse(JSON.stringify(draft.parts[key ?? ''])) as PartOf<Kind>;
  copy.id = `${copy.id}-x`;
  write(copy.data as PartOf<Kind>['data']);
  const made = `${copy.id}@${copy.revision}`;
  draft.parts[made] = copy as Design['parts'][string];
  return made;
}

/** A device with all that hangs on it. */
export function without(draft: Design, device: string): void {
  for (const [id, { device: fed }] of Object.entries(draft.circuits))
    if (fed === device) removeCircuit(draft, id);
  removeDevice(draft, device);
}
