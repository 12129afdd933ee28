import { edit, type Design, type Id } from '@torvek/core/document';
import { stringWay, type StringWay } from '@torvek/core/pack';
import { axleLoads, massBlocks, placed } from '@torvek/core/vehicle';

/** What an arrangement comes to: shown while a module hangs between two boxes. */
export interface Tally extends StringWay {
  /** null: the vehicle’s loads or a place are missing. */
  axles: { frontKg: number; rearKg: number; shiftPoints: number } | null;
  /** Full mass of each box. */
  boxKg: Map<Id, number>;
  totalKg: number;
}

export function tallyOf(design: Design): Tally {
  const { vehicle } = design;
  const { blocks, gaps, placeGaps } = massBlocks(design);
  const boxes = blocks.filter(({ kind }) => kind === 'box');
  let axles: Tally['axles'] = null;
  if (gaps.length + placeGaps.length === 0) {
    const parsed = axleLoads.parse({
      wheelbaseM: vehicle.wheelbaseM,
      frontKg: vehicle.frontKg,
      rearKg: vehicle.rearKg,
      changes: placed(blocks).map(({ name, massKg, xM }) => ({ name, massKg, xM })),
    });
    if (parsed.ok) {
      const { frontKg, rearKg, shiftPoints } = axleLoads.calculate(parsed.input).result;
      axles = { frontKg, rearKg, shiftPoints };
    }
  }
  return {
    ...stringWay(design),
    axles,
    boxKg: new Map(boxes.map(({ id, massKg }) => [id, massKg])),
    totalKg: boxes.reduce((sum, { massKg }) => sum + massKg, 0),
  };
}

/** The design with a move made, without making it a change. */
export const tried = (design: Design, move: (draft: Design) => void): Design =>
  edit(design, (draft) => move(draft as Design))?.design ?? design;

/** Puts modules into a box, or into none. */
export function intoBox(draft: Design, modules: readonly Id[], box: Id | null): void {
  for (const id of modules) {
    const module = draft.modules[id];
    if (module === undefined) continue;
    if (box === null) delete module.box;
    else module.box = box;
  }
}

/** Moves modules of one string so that they stand just before another module of it. */
export function beforeModule(draft: Design, modules: readonly Id[], before: Id): void {
  for (const string of Object.values(draft.strings)) {
    if (!string.modules.includes(before)) continue;
    const moving = string.modules.filter((id) => modules.includes(id) && id !== before);
    if (moving.length === 0) return;
    const rest = string.modules.filter((id) => !moving.includes(id));
    rest.splice(rest.indexOf(before), 0, ...moving);
    string.modules = rest;
    return;
  }
}

/** Moves a module one place earlier or later in its string. */
export function alongString(draft: Design, module: Id, by: -1 | 1): void {
  for (const string of Object.values(draft.strings)) {
    const at = string.modules.indexOf(module);
    const to = at + by;
    if (at < 0 || to < 0 || to >= string.modules.length) continue;
    const modules = [...string.modules];
    [modules[at], modules[to]] = [modules[to]!, modules[at]!];
    string.modules = modules;
    return;
  }
}
