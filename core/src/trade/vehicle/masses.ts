import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import { isHoseRun, loopMass, runMass, type Design } from '../../model/document';
import type { SharedView, StepDefinition } from '../../model/step';
import type { MassChange } from './axle-loads';

/** A block of mass in the side view: what leaves, what comes. */
export interface MassBlock extends Omit<MassChange, 'xM'> {
  id: string;
  kind: 'out' | 'in' | 'box' | 'loose' | 'run' | 'loop';
  /** Absent: it stands nowhere yet. */
  xM?: number;
  zM?: number;
  lengthM?: number;
  heightM?: number;
}

export interface MassList {
  blocks: MassBlock[];
  /** What has no mass where one is needed. */
  gaps: Gap[];
  /** What has a mass and no place: the mass of the vehicle is known, its axle loads are not. */
  placeGaps: Gap[];
  /** What follows from routes and plumbing that are not finished: it counts once it is known. */
  uncounted: Gap[];
}

/** What weighs something. */
export type MassSlices = Pick<
  Design,
  | 'masses'
  | 'boxes'
  | 'modules'
  | 'devices'
  | 'parts'
  | 'runs'
  | 'circuits'
  | 'pack'
  | 'loops'
  | 'plumbing'
  | 'joins'
>;

const notGiven = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });

/**
 * Every mass that is taken out or put in: the listed ones, each battery box with the modules in it, modules in no box, the cables
 * of each run, and coolant loops with what they hold. A removed mass counts negative.
 */
export function massBlocks(design: MassSlices): MassList {
  const { masses, boxes, modules, parts, runs = {}, loops = {}, joins = {} } = design;
  const list: MassList = { blocks: [], gaps: [], placeGaps: [], uncounted: [] };
  const { blocks, gaps, placeGaps, uncounted } = list;
  const add = (block: MassBlock, path: string, label: string) => {
    blocks.push(block);
    if (block.xM === undefined) placeGaps.push(notGiven(path, label));
  };
  for (const [id, item] of Object.entries(masses)) {
    const path = `masses.${id}`;
    const { tag, change, massKg, ...place } = item;
    if (massKg === undefined) {
      gaps.push(notGiven(`${path}.massKg`, `mass of ${tag}`));
      if (item.xM === undefined) placeGaps.push(notGiven(`${path}.xM`, `place of ${tag}`));
    } else if (massKg < 0) {
      const message = 'must be 0 or more: in or out says the sign';
      gaps.push({ kind: 'invalid', path: `${path}.massKg`, label: `mass of ${tag}`, message });
    } else {
      const block = { id, name: tag, kind: change, massKg: change === 'out' ? 0 - massKg : massKg, ...place };
      add(block, `${path}.xM`, `place of ${tag}`);
    }
  }
  const kgOf = (part: string) => (parts[part]?.kind === 'module' ? parts[part].data.massKg : 0);
  const insideKg = new Map<string, number>();
  for (const { box, part } of Object.values(modules)) {
    if (box !== undefined) insideKg.set(box, (insideKg.get(box) ?? 0) + kgOf(part));
  }
  for (const [id, { tag, emptyKg, xM, zM, lengthM, heightM }] of Object.entries(boxes)) {
    const inside = insideKg.get(id);
    if (inside === undefined && emptyKg === undefined) continue;
    const massKg = (inside ?? 0) + (emptyKg ?? 0);
    const size = given({ xM, zM, lengthM, heightM });
    add({ id, name: tag, kind: 'box', massKg, ...size }, `boxes.${id}.xM`, `place of ${tag}`);
  }
  const loose = Object.entries(modules).filter(([, { box }]) => boxes[box ?? ''] === undefined);
  const [first] = loose;
  if (first !== undefined) {
    const massKg = loose.reduce((sum, [, { part }]) => sum + kgOf(part), 0);
    const name = loose.length === 1 ? first[1].tag : `${loose.length} modules in no box`;
    add({ id: first[0], name, kind: 'loose', massKg }, `modules.${first[0]}.box`, `box of ${first[1].tag}`);
  }
  for (const [id, run] of Object.entries(runs)) {
    // Hoses are weighed with their loop.
    if (isHoseRun(run)) continue;
    const found = runMass(run, design);
    if (found === null) {
      uncounted.push(notGiven(`runs.${id}.points`, `cables of ${run.tag}`));
      continue;
    }
    const [xM, , zM] = found.at;
    blocks.push({ id, name: `Cables, ${run.tag}`, kind: 'run', massKg: found.massKg, xM, zM });
  }
  for (const [id, { tag }] of Object.entries(loops)) {
    const found = loopMass(id, design);
    if (found === null) continue;
    uncounted.push(...found.unknown);
    if (found.massKg === 0) continue;
    const { massKg, xM, zM } = found;
    const join = Object.entries(joins).find(([, one]) => one.loop === id);
    const path = join === undefined ? `loops.${id}.tank` : `joins.${join[0]}.xM`;
    const label = join === undefined ? `place of ${tag}` : `place of ${join[1].tag}`;
    add({ id, name: `${tag} with its coolant`, kind: 'loop', massKg, ...given({ xM, zM }) }, path, label);
  }
  return list;
}

/** What is not there is left out. */
const given = <T extends Record<string, number | undefined>>(fields: T) =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]?: number;
  };

/** Those that have a place. */
export const placed = (blocks: readonly MassBlock[]): (MassBlock & { xM: number })[] =>
  blocks.filter((block): block is MassBlock & { xM: number } => block.xM !== undefined);

/** Made once per design: sums and axle loads go by the same list. */
export const massListView: SharedView<MassList> = { id: 'vehicle.mass-list', make: massBlocks };

const paths: Record<MassBlock['kind'], (id: string) => string> = {
  out: (id) => `masses.${id}.massKg`,
  in: (id) => `masses.${id}.massKg`,
  box: (id) => `boxes.${id}`,
  loose: (id) => `modules.${id}`,
  run: (id) => `runs.${id}.points`,
  loop: (id) => `loops.${id}`,
};
const pathOf = ({ kind, id }: MassBlock) => paths[kind](id);

/** Sums of what is taken out, put in, and of the battery boxes. */
export const massesStep: StepDefinition = {
  id: 'vehicle.masses',
  version: 1,
  subjects: () => ['vehicle'],
  compute(subject, read) {
    const { blocks, gaps, uncounted } = read.shared(massListView);
    const missed =
      uncounted.length === 0 ? '' : `; not in it yet: ${uncounted.map(({ label }) => label).join(', ')}`;
    const sum = (kinds: string[]) =>
      blocks.filter(({ kind }) => kinds.includes(kind)).reduce((total, { massKg }) => total + massKg, 0);
    const figure = (name: FigureName<'vehicle.masses'>, label: string, value: number): Figure => ({
      id: figureId('vehicle.masses', subject, name),
      label,
      unit: 'kg',
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'm',
                label,
                formula: 'Σ(m)',
                inputs: blocks.map((block, i) => ({
                  symbol: `m_${i + 1}`,
                  label: block.name,
                  value: block.massKg,
                  unit: 'kg',
                  origin: {
                    kind: 'document' as const,
                    path: pathOf(block),
                  },
                })),
                value,
                unit: 'kg',
                source: `Sum of the listed masses, of the boxes with their modules, of routed cables, and of coolant loops${missed}`,
              },
            ],
    });
    return {
      figures: [
        figure('outKg', 'Mass taken out', 0 - sum(['out'])),
        figure('inKg', 'Mass put in, boxes included', sum(['in', 'box', 'loose', 'run', 'loop'])),
        figure('boxesKg', 'Battery boxes', sum(['box', 'loose'])),
        figure('changeKg', 'Change of mass', sum(['out', 'in', 'box', 'loose', 'run', 'loop'])),
      ],
      checks: [],
    };
  },
};
