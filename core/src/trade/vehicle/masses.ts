import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import { runMass, type Design } from '../../model/document';
import type { Reader, StepDefinition } from '../../model/step';
import type { MassChange } from './axle-loads';

/** A block of mass in the side view: what leaves, what comes. */
export interface MassBlock extends MassChange {
  id: string;
  kind: 'out' | 'in' | 'box' | 'run';
  zM?: number;
  lengthM?: number;
  heightM?: number;
}

export interface MassList {
  blocks: MassBlock[];
  gaps: Gap[];
}

type Slices = Pick<Design, 'masses' | 'boxes' | 'modules' | 'parts' | 'runs' | 'circuits' | 'pack'>;

/**
 * Every mass that is taken out or put in: the listed ones, each battery box with the modules in it, and the cables of each run whose
 * length is known.
 * A removed mass counts negative.
 */
export function massBlocks({ masses, boxes, modules, parts, runs = {}, circuits, pack }: Slices): MassList {
  const blocks: MassBlock[] = [];
  const gaps: Gap[] = [];
  for (const [id, item] of Object.entries(masses)) {
    const path = `masses.${id}`;
    if (item.massKg === undefined)
      gaps.push({ kind: 'not-given', path: `${path}.massKg`, label: `mass of ${item.tag}` });
    if (item.xM === undefined)
      gaps.push({ kind: 'not-given', path: `${path}.xM`, label: `place of ${item.tag}` });
    if (item.massKg === undefined || item.xM === undefined) continue;
    if (item.massKg < 0) {
      gaps.push({
        kind: 'invalid',
        path: `${path}.massKg`,
        label: `mass of ${item.tag}`,
        message: 'must be 0 or more: in or out says the sign',
      });
      continue;
    }
    const { tag, change, massKg, xM, ...size } = item;
    blocks.push({ id, name: tag, kind: change, massKg: change === 'out' ? -massKg : massKg, xM, ...size });
  }
  for (const [id, box] of Object.entries(boxes)) {
    const inside = Object.values(modules).filter((module) => module.box === id);
    if (inside.length === 0 && box.emptyKg === undefined) continue;
    if (box.xM === undefined) {
      gaps.push({ kind: 'not-given', path: `boxes.${id}.xM`, label: `place of ${box.tag}` });
      continue;
    }
    const modulesKg = inside.reduce((sum, module) => {
      const part = parts[module.part];
      return sum + (part?.kind === 'module' ? part.data.massKg : 0);
    }, 0);
    const { zM, lengthM, heightM } = box;
    blocks.push({
      id,
      name: box.tag,
      kind: 'box',
      massKg: modulesKg + (box.emptyKg ?? 0),
      xM: box.xM,
      ...(zM !== undefined && { zM }),
      ...(lengthM !== undefined && { lengthM }),
      ...(heightM !== undefined && { heightM }),
    });
  }
  for (const [id, run] of Object.entries(runs)) {
    const found = runMass(run, { circuits, pack, parts });
    if (found === null) continue;
    const [xM, , zM] = found.at;
    blocks.push({ id, name: `Cables, ${run.tag}`, kind: 'run', massKg: found.massKg, xM, zM });
  }
  return { blocks, gaps };
}

export function readMassList(read: Reader): MassList {
  return massBlocks({
    masses: read.at('masses'),
    boxes: read.at('boxes'),
    modules: read.at('modules'),
    parts: read.at('parts'),
    runs: read.at('runs'),
    circuits: read.at('circuits'),
    pack: read.at('pack'),
  });
}

const pathOf = ({ kind, id }: MassBlock) =>
  kind === 'box' ? `boxes.${id}` : kind === 'run' ? `runs.${id}.points` : `masses.${id}.massKg`;

/** Sums of what is taken out, put in, and of the battery boxes. */
export const massesStep: StepDefinition = {
  id: 'vehicle.masses',
  version: 1,
  subjects: () => ['vehicle'],
  compute(subject, read) {
    const { blocks, gaps } = readMassList(read);
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
                source: 'Sum of the listed masses, of the boxes with their modules, and of routed cables',
              },
            ],
    });
    return {
      figures: [
        figure('outKg', 'Mass taken out', 0 - sum(['out'])),
        figure('inKg', 'Mass put in, boxes included', sum(['in', 'box', 'run'])),
        figure('boxesKg', 'Battery boxes', sum(['box'])),
        figure('changeKg', 'Change of mass', sum(['out', 'in', 'box', 'run'])),
      ],
      checks: [],
    };
  },
};
