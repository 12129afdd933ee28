import { mainCircuits } from '../document';
import { rulesOf } from '../finding';
import { figureId, type Gap } from '../figure';
import { formatNumber } from '../quantity';
import { gapsBehind, judge, type StepDefinition } from '../step';

const rule = rulesOf('contactor');
const source = 'Contactor makers’ DC ratings';

const rules = {
  voltage: rule(
    'voltage',
    'stop',
    'The main contactors are not made for this voltage',
    'A DC arc that the contactor cannot blow out keeps the circuit closed and burns the contacts.',
    'Choose contactors whose DC rating is at or above the highest pack voltage.',
    source,
  ),
  carry: rule(
    'carry',
    'stop',
    'The main contactors carry more than their rating',
    'Contacts that run hot weld or lose their spring.',
    'Choose a larger contactor, or lower the load.',
    source,
  ),
  faultBreak: rule(
    'fault-above-break',
    'note',
    'The largest fault is above what the contactors break',
    'A contactor that opens on this current may weld or burn: the fuse has to clear first.',
    'See that the controller does not open on over-current before the fuse has cleared.',
    source,
  ),
};

/** The main contactors against voltage, load and fault. */
const contactorStep: StepDefinition = {
  id: 'contactor.main',
  version: 1,
  subjects: mainCircuits,
  compute(subject, read) {
    const key = read.at('circuits', subject, 'contactor');
    const part = key === undefined ? undefined : read.at('parts', key);
    const chosen = part?.kind === 'contactor' ? part.data : null;
    const missing: Gap[] =
      chosen === null
        ? [{ kind: 'not-given', path: `circuits.${subject}.contactor`, label: 'main contactors' }]
        : [];
    const compare = (
      which: keyof typeof rules,
      figure: ReturnType<typeof read.figure>,
      limit: number,
      unit: string,
      name: string,
      what: string,
    ) => {
      const gaps = [...missing, ...(figure.value === null ? gapsBehind(figure) : [])];
      const value = figure.value ?? 0;
      const message =
        value > limit
          ? `${name} ${formatNumber(value)} ${unit}; the contactors ${what} ${formatNumber(limit)} ${unit}.`
          : null;
      return judge(rules[which], [subject], gaps, message, [
        { label: figure.label, value, unit },
        { label: 'rating', value: limit, unit },
      ]);
    };
    return {
      figures: [],
      checks: [
        compare(
          'voltage',
          read.figure(figureId('pack.pack', 'pack', 'voltageMaxV')),
          chosen?.ratedVoltageV ?? 0,
          'V',
          'The pack reaches',
          'are made for',
        ),
        compare(
          'carry',
          read.figure(figureId('network.load', subject, 'rmsA')),
          chosen?.continuousA ?? 0,
          'A',
          'The load is',
          'carry',
        ),
        compare(
          'faultBreak',
          read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA')),
          chosen?.breakA ?? 0,
          'A',
          'The largest fault is',
          'break',
        ),
      ],
    };
  },
};

export const contactorSteps: StepDefinition[] = [contactorStep];
