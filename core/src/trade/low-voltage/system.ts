import { settingsDefaults, supplyOf, type Design } from '../../model/document';

/** What feeds the low voltage and what keeps it, with what is typed instead of the parts’ own figures. */
export interface LowVoltageSystem {
  /** Nominal, V: of the battery, else as set for the job. */
  nominalV: number;
  /** While it is fed, V; null: the calculator’s own. */
  systemV: number | null;
  converterA: number | null;
  converterPeakA: number | null;
  /** Out of the pack for each watt of low voltage. */
  efficiency: number | null;
  batteryAh: number | null;
  usableFraction: number | null;
  resistanceOhm: number | null;
  dischargeA: number | null;
  hasConverter: boolean;
}

type Slices = Pick<Design, 'lowVoltage' | 'parts' | 'settings'>;

export function lowVoltageSystem({ lowVoltage = {}, parts, settings }: Slices): LowVoltageSystem {
  const converter = parts[lowVoltage.converter ?? ''];
  const battery = parts[lowVoltage.battery ?? ''];
  const fed = converter?.kind === 'converter' ? converter.data : null;
  const kept = battery?.kind === 'battery' ? battery.data : null;
  const hasConverter = lowVoltage.school !== 'mains charger';
  return {
    nominalV: kept === null ? supplyOf(settings) : kept.nominalV > 20 ? 24 : settingsDefaults.supplyV,
    systemV: lowVoltage.systemV ?? (hasConverter ? (fed?.outputV ?? null) : null),
    converterA: hasConverter ? (lowVoltage.converterA ?? fed?.continuousA ?? null) : null,
    converterPeakA: hasConverter ? (fed?.peakA ?? null) : null,
    efficiency: hasConverter ? (fed?.efficiency ?? null) : null,
    batteryAh: lowVoltage.batteryAh ?? kept?.capacityAh ?? null,
    usableFraction: lowVoltage.usableFraction ?? kept?.usableFraction ?? null,
    resistanceOhm: kept?.resistanceOhm ?? null,
    dischargeA: kept?.dischargeA ?? null,
    hasConverter,
  };
}

/** While it is fed, V, where nobody says: 13.8 V of 12, twice that of 24. */
export const fedV = ({ systemV, nominalV }: LowVoltageSystem): number =>
  systemV ?? (13.8 * nominalV) / settingsDefaults.supplyV;
