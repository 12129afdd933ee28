import { fedV, lowVoltageSystem, twelveVolt, type TwelveVoltResult } from '@torvek/core/low-voltage';
import { loadDefaults, lowVoltageDefaults, type Design } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';

export interface SchoolRow {
  school: 'converter' | 'mains charger';
  /** What it takes to be enough. */
  needed: string;
  hours: number | null;
  essentialHours: number | null;
  days: number | null;
  verdict: string;
}

const n = (value: number) => formatNumber(value, 3);

/** Both ways to feed the same loads; null: they or the battery are not given. */
export function schoolsOf({ loads = {}, lowVoltage = {}, parts, settings }: Design): SchoolRow[] | null {
  const system = lowVoltageSystem({ lowVoltage: { ...lowVoltage, school: 'both' }, parts, settings });
  const all = Object.values(loads);
  if (all.length === 0 || system.batteryAh === null) return null;
  if (all.some(({ powerW, when }) => powerW === undefined || when === undefined)) return null;
  const systemV = fedV(system);
  const run = (atV: number): TwelveVoltResult | null => {
    const parsed = twelveVolt.parse({
      loads: Object.entries(loads).map(([id, load]) => ({
        id,
        watts: load.steadyPower === true ? (load.powerW! * systemV) / atV : load.powerW!,
        dutyFraction: load.dutyFraction ?? loadDefaults.dutyFraction,
        when: load.when!,
        essential: load.essential !== false,
      })),
      systemV,
      batteryAh: system.batteryAh!,
      ...(system.usableFraction !== null && { usableFraction: system.usableFraction }),
    });
    return parsed.ok ? twelveVolt.calculate(parsed.input).result : null;
  };
  const fed = run(systemV);
  const alone = run(system.nominalV);
  if (fed === null || alone === null) return null;
  const journeyH = lowVoltage.journeyH ?? lowVoltageDefaults.journeyH;
  const needA =
    Math.max(fed.drivingA, fed.chargingA) /
    (lowVoltage.deratingFraction ?? lowVoltageDefaults.deratingFraction);
  const perHour = system.usableFraction ?? 0.5;
  const needAh = (alone.drivingA * journeyH) / perHour;
  const hours = alone.hoursOnBatteryDriving;
  const shared = { hours, essentialHours: alone.hoursEssentialOnly, days: alone.daysParked };
  return [
    {
      school: 'converter',
      needed: `${n(needA)} A`,
      ...shared,
      verdict:
        system.converterA === null
          ? 'no converter is chosen'
          : system.converterA >= needA
            ? `the chosen one gives ${n(system.converterA)} A: enough; the hours are what is left when it fails`
            : `the chosen one gives ${n(system.converterA)} A: too little`,
    },
    {
      school: 'mains charger',
      needed: `${n(needAh)} Ah`,
      ...shared,
      verdict:
        hours === null
          ? 'nothing draws while driving'
          : hours >= journeyH
            ? `${n(system.batteryAh)} Ah outlast the longest journey of ${n(journeyH)} h`
            : `${n(system.batteryAh)} Ah end before the longest journey of ${n(journeyH)} h`,
    },
  ];
}
