import type { Gap } from '../../ground/figure';
import { loadDefaults } from '../../model/document';
import type { Reader } from '../../model/step';
import { controllerLoads } from './controller-loads';
import type { LowVoltageLoad } from './twelve-volt';

/** The loads as the calculator takes them; null with what is missing. */
export function loadsOf(
  read: Reader,
  systemV: number,
): {
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
  // In amperes at whatever voltage: the sum divides by the voltage while it is fed.
  const own = controllerLoads({ inlets: read.at('inlets'), parts: read.at('parts') });
  for (const { id, when, currentA } of own) {
    const watts = currentA * systemV;
    loads.push({ id, watts, dutyFraction: 1, when, essential: true, steady: false, peakW: watts });
  }
  return { loads, gaps };
}
