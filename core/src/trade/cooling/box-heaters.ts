import { figureId, type Figure } from '../../ground/figure';
import type { Design, HeaterFeed, Id } from '../../model/document';
import type { HeaterData } from '../../model/parts';
import type { Reader } from '../../model/step';

/** A heater that warms a box, or a share of it. */
export interface HeaterIn {
  tag: string;
  data: HeaterData;
  /** Share of it that warms this box. */
  share: number;
  fed: HeaterFeed;
  measuredW: number | null;
  /** In the coolant: what passes from it to all cells it serves, and how warm it may get; null: it lies beside them. */
  through: { wPerK: Figure; ceilingC: number } | null;
}

/** Mass of modules, kg. */
export const massOf = (design: Pick<Design, 'modules' | 'parts'>, ids: readonly Id[]) =>
  ids.reduce((sum, id) => {
    const part = design.parts[design.modules[id]?.part ?? ''];
    return sum + (part?.kind === 'module' ? part.data.massKg : 0);
  }, 0);

/**
 * What warms the modules of a box: its own heater, and its share of one in the coolant.
 *
 * @param maxC what cells stand: coolant gets no warmer, where nothing else is said
 */
export function heatersOf(id: Id, inside: readonly Id[], maxC: number, read: Reader): HeaterIn[] {
  const box = read.at('boxes', id)!;
  const parts = read.at('parts');
  const own = parts[box.heater ?? ''];
  const plumbing = Object.values(read.at('plumbing') ?? {});
  const design = { modules: read.at('modules'), parts };
  return [
    ...(own?.kind === 'heater'
      ? [
          {
            tag: box.tag,
            data: own.data,
            share: 1,
            fed: box.heaterVoltage ?? ('pack' as const),
            measuredW: box.heaterW ?? null,
            through: null,
          },
        ]
      : []),
    ...plumbing.flatMap((item): HeaterIn[] => {
      const part = parts[item.heater ?? ''];
      if (item.kind !== 'heater' || part?.kind !== 'heater') return [];
      const served = plumbing.flatMap(({ kind, loop, modules = [] }) =>
        kind === 'plate' && loop === item.loop ? modules : [],
      );
      const all = massOf(design, [...new Set(served)]);
      const here = massOf(
        design,
        inside.filter((module) => served.includes(module)),
      );
      return all > 0 && here > 0
        ? [
            {
              tag: item.tag,
              data: part.data,
              share: here / all,
              fed: item.fedFrom ?? 'pack',
              measuredW: item.heatW ?? null,
              through: {
                wPerK: read.figure(figureId('cooling.loop', item.loop ?? '', 'coldWPerK')),
                ceilingC: item.coolantMaxC ?? maxC,
              },
            },
          ]
        : [];
    }),
  ];
}
