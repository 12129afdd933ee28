import { rulesOf } from '../../ground/finding';
import { figureId, type Check } from '../../ground/figure';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';

const rule = rulesOf('charging');

export const supplyRules = {
  none: rule(
    'none',
    'mend',
    'Nothing charges the pack',
    'Neither a charger nor an inlet is in the design: their wires, fuses and windows are judged by nobody.',
    'Add the charger, or the inlet of one that stays outside.',
    'Devices of the design',
  ),
  lowVoltage: rule(
    'no-low-voltage',
    'note',
    'Nothing supplies the low voltage',
    'Coils, monitor, lamps and wipers live on the 12 or 24 V battery: without a supply it is flat in an hour.',
    'A DC-DC converter on the bus, or a charger on the mains if the vehicle is never far from it.',
    'Devices of the design',
  ),
};

/** Whether what fills the pack and the low-voltage battery is there at all. */
export const supplyStep: StepDefinition = {
  id: 'charging.supply',
  version: 1,
  subjects: ({ devices }) => (Object.keys(devices).length > 0 ? ['pack'] : []),
  compute(subject, read): { figures: []; checks: Check[] } {
    const kinds = Object.values(read.at('devices')).map(({ kind }) => kind);
    const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const gaps = highest.value === null ? gapsBehind(highest) : [];
    const count = { label: 'devices', value: kinds.length, unit: '' };
    const has = (...of: typeof kinds) => kinds.some((kind) => of.includes(kind));
    // A battery that the mains alone charges is a school of its own; what it costs is judged there.
    const onMains = read.at('lowVoltage')?.school === 'mains charger';
    return {
      figures: [],
      checks: [
        judge(
          supplyRules.none,
          [subject],
          gaps,
          has('charger', 'dc-inlet') ? null : `Of ${kinds.length} devices none is a charger or an inlet.`,
          [count],
        ),
        judge(
          supplyRules.lowVoltage,
          ['vehicle'],
          gaps,
          has('dc-dc') || onMains ? null : `Of ${kinds.length} devices none supplies the low voltage.`,
          [count],
        ),
      ],
    };
  },
};
