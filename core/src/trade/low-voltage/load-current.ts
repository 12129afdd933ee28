import type { Gap } from '../../ground/figure';
import type { Id } from '../../model/document';
import type { Reader } from '../../model/step';
import { fedV, lowVoltageSystem } from './system';

/** What a load draws at the most while it is fed, or out of the battery where it keeps its power, A. */
export function loadCurrentA(id: Id, read: Reader): { value: number | null; gaps: Gap[] } {
  const load = read.at('loads')![id]!;
  const system = lowVoltageSystem({
    lowVoltage: read.at('lowVoltage') ?? {},
    parts: read.at('parts'),
    settings: read.at('settings'),
  });
  if (load.powerW === undefined)
    return {
      value: null,
      gaps: [{ kind: 'not-given', path: `loads.${id}.powerW`, label: `power of ${load.tag}` }],
    };
  return { value: load.powerW / (load.steadyPower === true ? system.nominalV : fedV(system)), gaps: [] };
}
