import type { OwnLoss } from '@torvek/core/balance';
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { conditions, looks } from '@torvek/core/record';
import type { GridColumn } from '../../../parts/grid/columns';
import { measures } from './sheet';

/** One line of the sheet: a place of the design, or a thing on the shelf. */
export interface IntakeLine {
  id: Id;
  name: string;
  /** It lies on the shelf: its serial is its name. */
  shelved: boolean;
}

/** The parts of the sheet: what is measured on arrival, what after some days, what is seen; each with a word of help. */
export const views = [
  ['arrival', 'On arrival', 'type or paste a batch; > before a number: the range ended there'],
  ['wait', 'After the wait', 'some days later, nothing connected meanwhile: what each lost by itself'],
  ['seen', 'Seen', 'type, choose or paste; it goes with the serial number'],
] as const;
export type IntakeView = (typeof views)[number][0];

type Column = GridColumn<IntakeLine>;
const at = (name: string) => (line: IntakeLine) => `rows.${line.id}.${name}`;

const choiceOf = (
  id: string,
  title: string,
  choices: { value: string | boolean; text: string }[],
): Column => ({
  id,
  title,
  kind: 'choice',
  label: title,
  choices: () => choices,
  none: () => 'not looked at',
  path: at(id),
  width: '8rem',
});
const words = (all: readonly string[]) => all.map((value) => ({ value, text: value }));

const named: Column[] = [
  { id: 'name', title: 'Module', kind: 'fixed', label: 'Module', text: ({ name }) => name, width: '5.6rem' },
  {
    id: 'serial',
    title: 'serial',
    kind: 'text',
    label: 'Serial number',
    path: ({ id, shelved }) => (shelved ? null : `rows.${id}.serial`),
    width: '7.5rem',
  },
];

const measuredAs = (...fields: string[]): Column[] =>
  measures
    .filter(({ field }) => fields.includes(field))
    .map(({ field, title, unit, scale }) => ({
      id: field,
      title,
      kind: 'number',
      unit,
      scale,
      label: title,
      path: at(field),
      over: at(`over.${field}`),
    }));

const off: Column = {
  id: 'off',
  title: 'outlier',
  kind: 'slot',
  label: 'Outlier',
  width: '6rem',
};

/** The columns of each part of the sheet. */
export const intakeColumns = (lossOf: (id: Id) => OwnLoss | undefined): Record<IntakeView, Column[]> => ({
  arrival: [
    ...named,
    ...measuredAs('voltageV', 'insulationMOhm', 'resistanceOhm', 'capacityAh', 'sensorOhm'),
    off,
  ],
  wait: [
    ...named,
    ...measuredAs('voltageV', 'restedV'),
    {
      id: 'loss',
      title: 'own loss, mV a day and cell',
      kind: 'fixed',
      label: 'Own loss',
      text: ({ id }) => {
        const loss = lossOf(id);
        return loss === undefined
          ? ''
          : `${formatNumber(loss.mvPerDay, 3)} in ${formatNumber(loss.waitH / 24, 2)} d`;
      },
      width: '13rem',
    },
    off,
  ],
  seen: [
    ...named,
    {
      id: 'dateCode',
      title: 'date code',
      kind: 'text',
      label: 'Date code',
      path: at('dateCode'),
      width: '8rem',
    },
    choiceOf('look', 'look', words(looks)),
    choiceOf('terminals', 'terminals', words(conditions)),
    choiceOf('seals', 'coolant seals', words(conditions)),
    choiceOf('drained', 'coolant drained', [
      { value: true, text: 'drained' },
      { value: false, text: 'not drained' },
    ]),
    { ...off, title: '', label: 'State', width: '7rem' },
  ],
});
