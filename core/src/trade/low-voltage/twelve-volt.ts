import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface LowVoltageLoad {
  id: string;
  watts: number;
  dutyFraction: number;
  when: 'driving' | 'always' | 'charging';
  /** Absent: it is. */
  essential?: boolean;
}

export interface TwelveVoltInput {
  loads: LowVoltageLoad[];
  dcdcA?: number;
  systemV: number;
  batteryAh: number;
  usableFraction: number;
  deratingFraction: number;
}

export interface TwelveVoltResult {
  drivingA: number;
  chargingA: number;
  parkedA: number;
  dcdcOk: boolean | null;
  marginA: number | null;
  hoursOnBatteryDriving: number | null;
  hoursEssentialOnly: number | null;
  daysParked: number | null;
}

const rule = rulesOf('twelve-volt');
const source = 'Power times duty over the voltage of the system';

export const twelveVoltRules = {
  converter: rule(
    'converter-small',
    'mend',
    'The converter gives less than the loads ask',
    'The battery makes up for it until it is empty, on the road, in the dark.',
    'A larger converter, or less that runs at once.',
    'Converter with its derating against loads of driving or charging',
  ),
  rate: rule(
    'high-rate',
    'note',
    'The battery would be emptied fast',
    'At a high rate it yields less than its capacity says, the more so in the cold.',
    'Count on less than these hours.',
    'Capacity is stated for twenty hours',
  ),
};

/** Capacity is stated for this time, h. */
const statedForH = 20;

/**
 * What the low-voltage system draws, and how long battery and converter carry it.
 *
 * Source: sums of power times duty; usable capacity over current.
 */
export const twelveVolt = defineCalculator<TwelveVoltInput, TwelveVoltResult>({
  name: 'twelve-volt',
  version: 1,
  title: 'Low-voltage system',
  rules: Object.values(twelveVoltRules),
  door: {
    schema: record({
      loads: list(
        record({
          id: text(),
          watts: number({ min: 0 }),
          dutyFraction: number({ min: 0, max: 1 }),
          when: oneOf(['driving', 'always', 'charging']),
          essential: oneOf.optional([true, false]),
        }),
        { maxRows: 500 },
      ),
      dcdcA: number.optional({ min: 0 }),
      systemV: number.optional({ above: 0 }),
      batteryAh: number({ above: 0 }),
      usableFraction: number.optional({ above: 0, max: 1 }),
      deratingFraction: number.optional({ above: 0, max: 1 }),
    }),
    defaults: { systemV: 13.8, usableFraction: 0.5, deratingFraction: 0.8 },
    cross({ loads }: TwelveVoltInput, issue) {
      const ids = new Set<string>();
      loads.forEach(({ id }, i) => {
        if (ids.has(id)) issue(`loads.${i}.id`, 'stands twice');
        ids.add(id);
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { loads, systemV, batteryAh, usableFraction, deratingFraction, dcdcA } = input;
    const volts = { symbol: 'U', value: systemV, unit: 'V', from: 'systemV' };
    const amps = (symbol: string, label: string, which: (load: LowVoltageLoad) => boolean) => {
      const watts = loads.filter(which).reduce((sum, load) => sum + load.watts * load.dutyFraction, 0);
      return sheet.add({
        symbol,
        label,
        formula: 'P/U',
        inputs: [{ symbol: 'P', label: 'power times duty', value: watts, unit: 'W', from: 'loads' }, volts],
        value: watts / systemV,
        unit: 'A',
        source,
      });
    };
    const always = ({ when }: LowVoltageLoad) => when === 'always';
    const drivingA = amps('I_d', 'While driving', (load) => always(load) || load.when === 'driving');
    const chargingA = amps('I_c', 'While charging', (load) => always(load) || load.when === 'charging');
    const parkedA = amps('I_p', 'Parked', always);
    const essentialA = amps(
      'I_e',
      'Driving, what cannot be left out',
      (load) => load.essential !== false && (always(load) || load.when === 'driving'),
    );
    const usableAh = batteryAh * usableFraction;
    const hours = (current: number) => (current > 0 ? usableAh / current : null);
    const hoursOnBatteryDriving = sheet.add({
      symbol: 't',
      label: 'Driving on the battery alone',
      formula: 'Q·s/I_d',
      inputs: [
        { symbol: 'Q', value: batteryAh, unit: 'Ah', from: 'batteryAh' },
        { symbol: 's', value: usableFraction, unit: '', from: 'usableFraction' },
        { symbol: 'I_d', value: drivingA, unit: 'A' },
      ],
      value: hours(drivingA),
      unit: 'h',
      source: 'Usable capacity over current',
    });
    const marginA = dcdcA === undefined ? null : dcdcA * deratingFraction - Math.max(drivingA, chargingA);
    const parkedH = hours(parkedA);
    if (marginA !== null && marginA < 0)
      raise(
        twelveVoltRules.converter,
        `${formatQuantity(Math.max(drivingA, chargingA), 'A')} are asked; it gives ${formatQuantity(dcdcA! * deratingFraction, 'A')}.`,
      );
    if (drivingA > batteryAh / statedForH)
      raise(
        twelveVoltRules.rate,
        `${formatQuantity(drivingA, 'A')} from ${formatQuantity(batteryAh, 'Ah')}.`,
      );
    return {
      drivingA,
      chargingA,
      parkedA,
      dcdcOk: marginA === null ? null : marginA >= 0,
      marginA,
      hoursOnBatteryDriving,
      hoursEssentialOnly: hours(essentialA),
      daysParked: parkedH === null ? null : parkedH / 24,
    };
  },
});
