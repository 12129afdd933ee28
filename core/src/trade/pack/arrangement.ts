import type { Draft } from 'immer';
import type { BoxItem, Design, Id } from '../../model/document';
import type { ModuleData } from '../../model/parts';
import type { Gap } from '../../ground/figure';
import { massBlocks, placed, type MassSlices } from '../vehicle';
import type { ArrangeInput, Arrangement } from './arrange';
import { defaultMarginMm, fitModules, type Fit, type ModuleSize } from './fit';
import { cableWayM, type Place } from './order';

type Slices = MassSlices & Pick<Design, 'vehicle' | 'strings'>;

/** The box where strings begin and end. */
function homeBox(design: Slices): Id | undefined {
  const { combinerBox, mainsBox } = design.pack;
  const first = Object.values(design.strings).find(({ modules }) => modules.length > 0);
  return combinerBox ?? mainsBox ?? design.modules[first?.modules.at(-1) ?? '']?.box;
}

const placeOf = ({ xM = 0, yM = 0, zM = 0 }: Partial<Place>): Place => ({ xM, yM, zM });

/** What of a box the fit goes by, besides its size. */
export const roomOf = ({ linkPitchMm, shelves, shelfMm }: BoxItem) => ({
  ...(linkPitchMm !== undefined && { linkPitchMm }),
  ...(shelves !== undefined && { shelves }),
  ...(shelfMm !== undefined && { shelfMm }),
});

const sizeOf = ({ lengthMm, widthMm, heightMm, onSide, onEnd }: ModuleData): ModuleSize => ({
  lengthMm,
  widthMm,
  heightMm,
  ...(onSide === true && { onSide }),
  ...(onEnd === true && { onEnd }),
});

/** A box that only holds mains or strings’ meeting point, when it is another than the ones with modules. */
const isForModules = (design: Slices, id: Id) =>
  Object.values(design.modules).some(({ box }) => box === id) ||
  (id !== design.pack.combinerBox && id !== design.pack.mainsBox);

/** What the search for arrangements takes from a design, or what is missing for it. */
export function arrangeInputOf(design: Slices): { input: ArrangeInput | null; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const need = <T>(value: T | undefined, path: string, label: string): T | undefined => {
    if (value === undefined) gaps.push({ kind: 'not-given', path, label });
    return value;
  };
  const positive = (value: number | undefined, path: string, label: string): number => {
    need(value, path, label);
    if (value !== undefined && value <= 0)
      gaps.push({ kind: 'invalid', path, label, message: 'must be above 0' });
    return value ?? 0;
  };
  const { vehicle } = design;
  const wheelbaseM = positive(vehicle.wheelbaseM, 'vehicle.wheelbaseM', 'wheelbase');
  const frontKg = positive(vehicle.frontKg, 'vehicle.frontKg', 'front axle load before');
  const rearKg = positive(vehicle.rearKg, 'vehicle.rearKg', 'rear axle load before');
  const boxes = Object.entries(design.boxes)
    .filter(([id]) => isForModules(design, id))
    .map(([id, box]) => {
      const at = `boxes.${id}`;
      return {
        id,
        tag: box.tag,
        xM: need(box.xM, `${at}.xM`, `place of ${box.tag}`) ?? 0,
        yM: box.yM ?? 0,
        zM: box.zM ?? 0,
        lengthM: positive(box.lengthM, `${at}.lengthM`, `length of ${box.tag}`),
        widthM: positive(box.widthM, `${at}.widthM`, `width of ${box.tag}`),
        heightM: positive(box.heightM, `${at}.heightM`, `height of ${box.tag}`),
        marginMm: design.pack.boxMarginMm ?? defaultMarginMm,
        ...roomOf(box),
      };
    });
  if (boxes.length === 0) gaps.push({ kind: 'not-given', path: 'boxes', label: 'boxes' });
  const kinds: ArrangeInput['kinds'] = {};
  const strings = Object.entries(design.strings)
    .filter(([, { modules }]) => modules.length > 0)
    .map(([id, { modules }]) => {
      const counts: Record<string, number> = {};
      const stay: Record<Id, Record<string, number>> = {};
      for (const module of modules) {
        const key = design.modules[module]?.part ?? '';
        const part = design.parts[key];
        if (part?.kind !== 'module') continue;
        kinds[key] = { ...sizeOf(part.data), massKg: part.data.massKg };
        counts[key] = (counts[key] ?? 0) + 1;
        const box = design.modules[module]?.stays === true ? design.modules[module].box : undefined;
        if (box === undefined || design.boxes[box] === undefined) continue;
        stay[box] ??= {};
        stay[box][key] = (stay[box][key] ?? 0) + 1;
      }
      return { id, counts, ...(Object.keys(stay).length > 0 && { stay }) };
    });
  if (strings.length === 0) gaps.push({ kind: 'not-given', path: 'strings', label: 'modules in series' });
  const masses = massBlocks({ ...design, modules: {} });
  gaps.push(...masses.gaps, ...masses.placeGaps);
  if (gaps.length > 0) return { input: null, gaps };
  const home = homeBox(design);
  return {
    input: {
      boxes,
      kinds,
      strings,
      wheelbaseM,
      frontKg,
      rearKg,
      changes: placed(masses.blocks).map(({ name, massKg, xM }) => ({ name, massKg, xM })),
      mains: placeOf(design.boxes[home ?? ''] ?? boxes[0]!),
      ...(vehicle.frontLimitKg !== undefined && { frontLimitKg: vehicle.frontLimitKg }),
      ...(vehicle.rearLimitKg !== undefined && { rearLimitKg: vehicle.rearLimitKg }),
    },
    gaps: [],
  };
}

/**
 * Takes a proposal: every string’s modules into its boxes in series order; modules of one kind keep their order, and those
 * that stay in their box do.
 */
export function takeArrangement(draft: Draft<Design>, { counts, order }: Arrangement): void {
  for (const [id, string] of Object.entries(draft.strings)) {
    const boxes = order[id];
    if (boxes === undefined) continue;
    const stays = (module: Id) => {
      const { stays: kept, box } = draft.modules[module] ?? {};
      return kept === true && box !== undefined && draft.boxes[box] !== undefined ? box : null;
    };
    const left = [...string.modules];
    const placed: Id[] = [];
    for (const box of boxes)
      for (const [kind, count] of Object.entries(counts[id]?.[box] ?? {})) {
        const ofKind = left.filter((module) => draft.modules[module]?.part === kind);
        const bound = ofKind.filter((module) => stays(module) === box);
        const free = ofKind
          .filter((module) => stays(module) === null)
          .slice(0, Math.max(count - bound.length, 0));
        for (const module of ofKind) {
          if (!bound.includes(module) && !free.includes(module)) continue;
          left.splice(left.indexOf(module), 1);
          draft.modules[module]!.box = box;
          placed.push(module);
        }
      }
    string.modules = [...placed, ...left];
  }
}

/** How the strings of a design run through its boxes. */
export interface StringWay {
  /** Joints within boxes and from box to box, all strings. */
  linksInside: number;
  linksBetween: number;
  /** Cable from the mains through the boxes and back, along the axes between their middles. */
  wayM: number;
  /** Modules that sit in no box. */
  loose: number;
}

export function stringWay(design: Slices): StringWay {
  const home = design.boxes[homeBox(design) ?? ''];
  const way: StringWay = { linksInside: 0, linksBetween: 0, wayM: 0, loose: 0 };
  for (const { modules } of Object.values(design.strings)) {
    let at: Place | null = home === undefined ? null : placeOf(home);
    let before: Id | null | undefined = null;
    modules.forEach((module, i) => {
      const box = design.modules[module]?.box;
      if (box === undefined) way.loose += 1;
      if (i > 0) {
        if (box === before && box !== undefined) way.linksInside += 1;
        else way.linksBetween += 1;
      }
      const item = box === undefined ? undefined : design.boxes[box];
      if (item !== undefined) {
        const place = placeOf(item);
        if (at !== null) way.wayM += cableWayM(at, place);
        at = place;
      }
      before = box;
    });
    if (home !== undefined && at !== null && modules.length > 0) way.wayM += cableWayM(at, placeOf(home));
  }
  return way;
}

/** What stands in a box: its modules in the order of their strings, and their slots. */
export interface BoxContent {
  modules: Id[];
  /** null: they do not fit, or the box has no size. */
  fit: Fit | null;
  sized: boolean;
}

/** Modules of each box with their slots; kinds stand together, strings after one another. */
export function boxContents(
  design: Pick<Slices, 'boxes' | 'modules' | 'strings' | 'parts' | 'pack'>,
): Map<Id, BoxContent> {
  const strung = Object.values(design.strings).flatMap(({ modules }) => modules);
  const known = new Set(strung);
  const all = [...strung, ...Object.keys(design.modules).filter((id) => !known.has(id))];
  return new Map(
    Object.entries(design.boxes).map(([id, box]): [Id, BoxContent] => {
      const inside = all.filter((module) => design.modules[module]?.box === id);
      const keys = [...new Set(inside.map((module) => design.modules[module]!.part))];
      const modules = keys.flatMap((key) => inside.filter((module) => design.modules[module]!.part === key));
      const { lengthM, widthM, heightM } = box;
      if (lengthM === undefined || widthM === undefined || heightM === undefined)
        return [id, { modules, fit: null, sized: false }];
      const sizes = keys.flatMap((key) => {
        const part = design.parts[key];
        return part?.kind === 'module'
          ? [
              {
                size: sizeOf(part.data),
                count: inside.filter((module) => design.modules[module]!.part === key).length,
              },
            ]
          : [];
      });
      const marginMm = design.pack.boxMarginMm ?? defaultMarginMm;
      return [
        id,
        {
          modules,
          fit: fitModules({ lengthM, widthM, heightM, marginMm, ...roomOf(box) }, sizes),
          sized: true,
        },
      ];
    }),
  );
}
