import { figureId, type Figure } from '../../ground/figure';
import type { Id } from '../../model/document';
import type { LoopState } from './loop-state';
import type { DayOfPlates } from './plates-over-day';

/** The hottest modules of a loop over the drives of a day, and over the fast charge after them. */
export function dayFigures(subject: Id, { limits, nameOf }: LoopState, found: DayOfPlates | null): Figure[] {
  if (found === null) return [];
  const { day, gaps, hasFast } = found;
  const hottest = (of: 'driveMaxC' | 'chargeMaxC') =>
    day === null
      ? null
      : day.plates.reduce((most, plate) =>
          (plate[of] ?? -Infinity) > (most[of] ?? -Infinity) ? plate : most,
        );
  const told = (
    name: 'modulesDriveC' | 'modulesChargeC',
    label: string,
    of: 'driveMaxC' | 'chargeMaxC',
  ): Figure => {
    const plate = hottest(of);
    const value = plate?.[of] ?? null;
    return {
      id: figureId('cooling.loop', subject, name),
      label,
      unit: '°C',
      value,
      gaps,
      working:
        value === null || plate === null
          ? []
          : [
              {
                symbol: 'T',
                label,
                formula: 'm·c·dT/dt = P − UA·(T − T_a) − UA_c·(T − T_c), each plate',
                inputs: [
                  {
                    symbol: 'UA_c',
                    label: `cells to coolant on ${nameOf(plate.id)}, the hottest`,
                    value: plate.coolingWPerK,
                    unit: 'W/K',
                  },
                  {
                    symbol: 'T_c',
                    label: `coolant that comes to ${nameOf(plate.id)}`,
                    value: plate.coolantC,
                    unit: '°C',
                  },
                ],
                value,
                unit: '°C',
                source: 'One lump for each plate, with its own flow; the pump follows the hottest',
              },
            ],
      limit: { max: limits.maxC },
    };
  };
  return [
    told('modulesDriveC', 'Hottest modules, drives of the day', 'driveMaxC'),
    ...(hasFast ? [told('modulesChargeC', 'Hottest modules, fast charge after them', 'chargeMaxC')] : []),
  ];
}
