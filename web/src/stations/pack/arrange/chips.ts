import type { Design, Id } from '@torvek/core/document';
import { boxContents } from '@torvek/core/pack';

/** A module as it is drawn in plan: millimetre-true where its box has sizes and it fits. */
export interface Chip {
  id: Id;
  tag: string;
  /** Index of its string and its place in it, from 1; null: in none. */
  string: { id: Id; index: number; tag: string; place: number } | null;
  box: Id | null;
  /** In the vehicle frame, m: middle and size in plan. */
  xM: number;
  yM: number;
  lengthM: number;
  widthM: number;
  /** Height of its middle and its own, m. */
  zM: number;
  heightM: number;
  layer: number;
  /** Proposals leave it in its box. */
  stays: boolean;
}

export interface DrawnBox {
  id: Id;
  tag: string;
  xM: number;
  yM: number;
  zM: number;
  lengthM: number;
  widthM: number;
  heightM: number;
  /** False: a size is missing, and it is drawn at a size of no meaning. */
  sized: boolean;
  fits: boolean;
  /** What the modules in it need, in words; empty when all is well. */
  trouble: string;
  count: number;
}

const unknownSizeM = 0.6;

/** Everything that the plan shows of the boxes. */
export interface Drawn {
  boxes: DrawnBox[];
  chips: Chip[];
  /** In no box. */
  loose: Chip[];
}

export function drawnBoxes(design: Design): Drawn {
  const contents = boxContents(design);
  const placeIn = new Map<Id, Chip['string']>();
  Object.entries(design.strings).forEach(([id, { tag, modules }], index) =>
    modules.forEach((module, i) => placeIn.set(module, { id, index, tag, place: i + 1 })),
  );
  const chips: Chip[] = [];
  const boxes = Object.entries(design.boxes).map(([id, box]): DrawnBox => {
    const { modules, fit, sized } = contents.get(id)!;
    const lengthM = Math.abs(box.lengthM ?? unknownSizeM);
    const widthM = Math.abs(box.widthM ?? unknownSizeM);
    const heightM = Math.abs(box.heightM ?? unknownSizeM / 2);
    const at = { xM: box.xM ?? 0, yM: box.yM ?? 0, zM: box.zM ?? heightM / 2 };
    const slots = fit?.slots ?? looseSlots(modules.length, lengthM, widthM, heightM);
    shareFootprints(slots).forEach((slot, i) => {
      const module = modules[i]!;
      chips.push({
        id: module,
        tag: design.modules[module]!.tag,
        string: placeIn.get(module) ?? null,
        box: id,
        stays: design.modules[module]!.stays === true,
        ...slot,
        xM: at.xM + slot.xM,
        yM: at.yM + slot.yM,
        zM: at.zM + slot.zM,
      });
    });
    return {
      id,
      tag: box.tag,
      ...at,
      lengthM,
      widthM,
      heightM,
      sized,
      fits: fit !== null,
      trouble: !sized ? 'sizes missing' : fit === null ? 'do not fit' : '',
      count: modules.length,
    };
  });
  const loose = Object.entries(design.modules)
    .filter(([, { box }]) => box === undefined)
    .map(([id, { tag }]): Chip => ({
      id,
      tag,
      string: placeIn.get(id) ?? null,
      box: null,
      stays: false,
      xM: 0,
      yM: 0,
      zM: 0,
      lengthM: 0,
      widthM: 0,
      heightM: 0,
      layer: 0,
    }));
  return { boxes, chips, loose };
}

type SlotLike = Pick<Chip, 'xM' | 'yM' | 'zM' | 'lengthM' | 'widthM' | 'heightM' | 'layer'>;

/** A grid of no meaning, for what does not fit: everything stays visible and can be taken away. */
function looseSlots(count: number, lengthM: number, widthM: number, heightM: number): SlotLike[] {
  const columns = Math.max(Math.ceil(Math.sqrt((count * lengthM) / widthM)), 1);
  const rows = Math.max(Math.ceil(count / columns), 1);
  const long = lengthM / columns;
  const wide = widthM / rows;
  return Array.from({ length: count }, (_, i) => ({
    xM: lengthM / 2 - ((i % columns) + 0.5) * long,
    yM: widthM / 2 - (Math.floor(i / columns) + 0.5) * wide,
    zM: 0,
    lengthM: long * 0.9,
    widthM: wide * 0.9,
    heightM: heightM * 0.5,
    layer: 0,
  }));
}

/** Modules stacked on one another share their footprint in plan, side by side along its longer edge. */
function shareFootprints(slots: readonly SlotLike[]): SlotLike[] {
  const stacks = new Map<string, SlotLike[]>();
  const key = ({ xM, yM }: SlotLike) => `${xM.toFixed(4)}|${yM.toFixed(4)}`;
  for (const slot of slots) stacks.set(key(slot), [...(stacks.get(key(slot)) ?? []), slot]);
  return slots.map((slot) => {
    const stack = stacks.get(key(slot))!;
    if (stack.length === 1) return slot;
    const share = stack.indexOf(slot);
    const part = (size: number) => size / stack.length;
    return slot.widthM >= slot.lengthM
      ? {
          ...slot,
          widthM: part(slot.widthM),
          yM: slot.yM + slot.widthM / 2 - (share + 0.5) * part(slot.widthM),
        }
      : {
          ...slot,
          lengthM: part(slot.lengthM),
          xM: slot.xM + slot.lengthM / 2 - (share + 0.5) * part(slot.lengthM),
        };
  });
}
