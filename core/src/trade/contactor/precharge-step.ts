import { rulesOf, type CheckValue } from '../../ground/finding';
import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { startLowOf, type Id } from '../../model/document';
import { partKey } from '../../model/parts';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { packHighest, prechargedCircuits } from '../precharge';
import { coilDefaults, coilOf, pullInAtV } from './coil';

const rule = rulesOf('contactor');
const source = 'Contactor makers’ DC ratings against the pre-charge resistor';

export const prechargeContactorRules = {
  voltage: rule(
    'precharge-voltage',
    'stop',
    'The pre-charge contactor is not made for this voltage',
    'When a start is given up it parts the whole pack voltage: an arc that it cannot blow out holds the bus live.',
    'A contactor whose DC rating is at or above the highest pack voltage.',
    source,
  ),
  make: rule(
    'precharge-make',
    'mend',
    'The pre-charge contactor closes on more than it makes',
    'An empty bus is a short: the first moment is the pack’s voltage over the resistor alone.',
    'A contactor that makes more, or a larger resistance.',
    source,
  ),
  break: rule(
    'precharge-break',
    'mend',
    'The pre-charge contactor does not break a start that fails',
    'On a shorted bus the current never falls: at the time limit this contactor alone has to end it.',
    'A contactor that breaks more, or a larger resistance.',
    source,
  ),
  pullIn: rule(
    'precharge-pull-in',
    'stop',
    'At the lowest supply of a start the pre-charge contactor does not pull in',
    'The vehicle does not start when it is cold; where a timer closes the main, it closes on an empty bus.',
    'A contactor that pulls in lower, or a stiffer supply of the coils.',
    'Makers’ coil data',
  ),
};

/** The contactor in series with the pre-charge resistor: voltage, first moment, a start on a short, its coil. */
export const prechargeContactorStep: StepDefinition = {
  id: 'contactor.precharge',
  version: 1,
  subjects: prechargedCircuits,
  compute(subject: Id, read) {
    const { prechargeContactor: key, resistor: resistorKey = '' } = read.at('circuits', subject)!;
    const part = read.at('parts', key ?? '');
    const resistor = read.at('parts', resistorKey);
    const settings = read.at('settings');
    const data = part?.kind === 'contactor' ? part.data : null;
    const highest = read.figure(packHighest);
    const noPart: Gap[] =
      data === null
        ? [
            {
              kind: 'not-given',
              path: `circuits.${subject}.prechargeContactor`,
              label: 'pre-charge contactor',
            },
          ]
        : [];
    const noVoltage = highest.value === null ? gapsBehind(highest) : [];
    const noResistor: Gap[] =
      resistor?.kind === 'resistor'
        ? []
        : [{ kind: 'not-given', path: `circuits.${subject}.resistor`, label: 'pre-charge resistor' }];
    const coil = data === null ? null : coilOf(data);
    const noCoil: Gap[] =
      data !== null && coil === null
        ? [
            {
              kind: 'not-given',
              path: `circuits.${subject}.prechargeContactor`,
              label: 'coil data of the pre-charge contactor',
            },
          ]
        : [];
    // The least resistance that the resistor may have, and the whole pack across it.
    const leastOhm =
      resistor?.kind === 'resistor'
        ? resistor.data.resistanceOhm * (1 - resistor.data.toleranceFraction)
        : Infinity;
    const firstA = (highest.value ?? 0) / leastOhm;
    const lowV = startLowOf(settings);
    const coilC = settings.coilC ?? coilDefaults.coilC;
    const pullInV = coil === null ? 0 : pullInAtV(coil, coilC);
    const n = formatNumber;
    const label = part?.label ?? '';
    const check = (
      which: keyof typeof prechargeContactorRules,
      gaps: Gap[],
      problem: string | null,
      values: CheckValue[],
    ) =>
      judge(
        prechargeContactorRules[which],
        [subject],
        [...noPart, ...gaps],
        problem === null ? null : `${label} ${problem}.`,
        values,
        { parts: part?.kind === 'contactor' ? [partKey(part)] : [] },
      );
    const v = (name: string, value: number, unit: string): CheckValue => ({ label: name, value, unit });
    const [rated, makeA, breakA] = [data?.ratedVoltageV ?? 0, data?.makeA ?? 0, data?.breakA ?? 0];
    return {
      figures: [],
      checks: [
        check(
          'voltage',
          noVoltage,
          (highest.value ?? 0) > rated
            ? `is rated ${n(rated)} V DC, the pack reaches ${n(highest.value ?? 0)} V`
            : null,
          [
            v('highest pack voltage', highest.value ?? 0, 'V'),
            v('rated voltage of the pre-charge contactor', rated, 'V'),
          ],
        ),
        check(
          'make',
          [...noVoltage, ...noResistor],
          firstA > makeA
            ? `makes ${n(makeA)} A; an empty bus draws ${n(firstA)} A in the first moment`
            : null,
          [v('first moment', firstA, 'A'), v('makes', makeA, 'A')],
        ),
        check(
          'break',
          [...noVoltage, ...noResistor],
          firstA > breakA
            ? `breaks ${n(breakA)} A; on a shorted bus ${n(firstA)} A still flow at the time limit`
            : null,
          [v('on a shorted bus', firstA, 'A'), v('breaks', breakA, 'A')],
        ),
        check(
          'pullIn',
          noCoil,
          pullInV > lowV
            ? `pulls in at ${n(pullInV)} V when its coil is at ${n(coilC)} °C, a start may leave ${n(lowV)} V`
            : null,
          [v('pulls in at', pullInV, 'V'), v('lowest supply at start', lowV, 'V'), v('coil', coilC, '°C')],
        ),
      ],
    };
  },
};
