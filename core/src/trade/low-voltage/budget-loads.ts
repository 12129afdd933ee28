import type { Gap } from '../../ground/figure';
import { loadDefaults } from '../../model/document';
import type { Reader } from '../../model/step';
import type { LowVoltageLoad } from './twelve-volt';

/** The loads as the calculator takes them; null with what is missing. */
export function loadsOf(read: Reader): {
  loads: (LowVoltageLoad & { steady: boolean; peakW: number })[];
  gaps: Gap[];
} {
  const gaps: Gap[] = [];
  const loads = Object.entries(read.at('loads') ?? {}).map(([id, load]) => {
    if (load.powerW === undefined)
      gaps.push({ kind: 'not-given', path: `loads.${id}.powerW`, label: `power of ${load.tag}` });
    if (load.when === undefined)
      gaps.push({ kind: 'not-given', path: `loads.${id}.when`, label: `when ${load.tag} runs` });
    return {
      id,
      watts: load.powerW ?? 0,
      dutyFraction: load.dutyFraction ?? loadDefaults.dutyFraction,
      when: load.when ?? ('always' as const),
      essential: load.essential !== false,
      steady: load.steadyPower === true,
      peakW: load.peakW ?? load.powerW ?? 0,
    };
  });
  return { loads, gaps };
}
