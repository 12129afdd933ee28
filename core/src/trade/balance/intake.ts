import { rulesOf, type CheckValue } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Design } from '../../model/document';
import { partKey } from '../../model/parts';
import { judge } from '../../model/step';
import {
  conditions,
  isModule,
  isOfItem,
  looks,
  seenWords,
  stepParts,
  stockOf,
  type Entry,
  type Item,
} from '../../record';
import { scoreBatch, type BatchScores, type OutlierRule } from './outliers';

/** A quantity that is measured of each module as it comes in. */
export interface IntakeQuantity {
  field: 'voltageV' | 'insulationMOhm' | 'resistanceOhm' | 'capacityAh' | 'restedV' | 'sensorOhm';
  /** Of the step that records it. */
  template: string;
  title: string;
  /** As it is shown; `scale` is the stored value over the shown one. */
  unit: string;
  scale: number;
  /** The unit in which it is stored. */
  storedUnit: string;
  /** Where it is an outlier of its batch; null: by itself it tells nothing. */
  outlier: OutlierRule | null;
}

/**
 * What is measured at intake, in the order of the sheet. How far from the batch something must lie is judged: what instruments and
 * temperature do by themselves stays below it. Insulation and capacity are wrong only downwards, a resistance only upwards.
 */
export const intakeQuantities = [
  {
    field: 'voltageV',
    template: 'intake-voltage',
    title: 'voltage',
    unit: 'V',
    scale: 1,
    storedUnit: 'V',
    outlier: { side: 'both', leastFraction: 0.005 },
  },
  {
    field: 'insulationMOhm',
    template: 'intake-insulation',
    title: 'insulation',
    unit: 'MΩ',
    scale: 1,
    storedUnit: 'MΩ',
    outlier: { side: 'low', leastFraction: 0.5 },
  },
  {
    field: 'resistanceOhm',
    template: 'intake-resistance',
    title: 'resistance',
    unit: 'mΩ',
    scale: 0.001,
    storedUnit: 'Ω',
    outlier: { side: 'high', leastFraction: 0.1 },
  },
  {
    field: 'capacityAh',
    template: 'intake-capacity',
    title: 'capacity',
    unit: 'Ah',
    scale: 1,
    storedUnit: 'Ah',
    outlier: { side: 'low', leastFraction: 0.03 },
  },
  {
    field: 'restedV',
    template: 'intake-rested',
    title: 'after the wait',
    unit: 'V',
    scale: 1,
    storedUnit: 'V',
    outlier: null,
  },
  {
    field: 'sensorOhm',
    template: 'intake-sensor',
    title: 'sensor',
    unit: 'kΩ',
    scale: 1000,
    storedUnit: 'Ω',
    outlier: { side: 'both', leastFraction: 0.1 },
  },
] as const satisfies readonly IntakeQuantity[];

/** Of the loss by themselves, mV a day and cell: high, and by more than instruments do. */
export const lossOutlier: OutlierRule = { side: 'high', leastOff: 0.3 };
/** A cell that loses this much a day by itself, mV, is doubtful in any batch: a judged bound. */
export const mostLossMvPerDay = 3;
/** A shorter wait shows the meter more than the cell, h. */
export const shortestWaitH = 24;

/** A reading as it counts now. */
interface Reading {
  value: number;
  /** The range of the instrument ended there. */
  over: boolean;
  atMs: number;
}

/** What is known of one thing at intake, by the template of the step. */
export type IntakeReadings = ReadonlyMap<string, Reading>;

/**
 * The last reading of each quantity of every thing, wherever it is now.
 *
 * @param entries as they tell of places now (`asPresent`)
 * @returns by the place in which the thing sits, or by the thing on the shelf
 */
export function intakeReadings(entries: readonly Entry[]): Map<string, Map<string, Reading>> {
  const all = new Map<string, Map<string, Reading>>();
  for (const { body, takenAt } of entries) {
    if (body.kind !== 'result' || body.measured.kind !== 'value' || !isOfItem(body.step)) continue;
    const { template, subject } = stepParts(body.step);
    const own = all.get(subject) ?? new Map<string, Reading>();
    const { value, over = false } = body.measured;
    own.set(template, { value, over, atMs: Date.parse(takenAt) });
    all.set(subject, own);
  }
  return all;
}

/** What a module lost by itself. */
export interface OwnLoss {
  /** mV a day and cell; below 0 it rose: it had not been at rest the first time. */
  mvPerDay: number;
  waitH: number;
}

/**
 * What a module loses by itself, from its voltage when it came in and after the wait.
 *
 * @param cells in series within it
 * @returns null where either is not known, or the wait was shorter than a day
 */
export function ownLoss(readings: IntakeReadings | undefined, cells: number): OwnLoss | null {
  const first = readings?.get('intake-voltage');
  const rested = readings?.get('intake-rested');
  if (first === undefined || rested === undefined || first.over || rested.over) return null;
  const waitH = (rested.atMs - first.atMs) / 3_600_000;
  if (waitH < shortestWaitH) return null;
  return { mvPerDay: ((first.value - rested.value) * 1000 * 24) / (cells * waitH), waitH };
}

/** Scores of one quantity over a batch; what ended a range counts as that much, and is no outlier downwards. */
export const scoreIntake = (values: readonly (number | null)[], rule: OutlierRule | null): BatchScores =>
  rule === null ? scoreBatch(values.map(() => null)) : scoreBatch(values, rule);

const rule = rulesOf('intake');

export const intakeRules = {
  offBatch: rule(
    'off-batch',
    'mend',
    'A module that is fitted differs from its batch',
    'What differs from its like was used, stored or made otherwise, and goes on to differ.',
    'Measure it again as the others were measured; swap it, or accept it with the reason.',
    'Beyond 3.5 scaled median deviations and beyond what instruments do; judged bounds',
  ),
  losesCharge: rule(
    'loses-charge',
    'mend',
    'A module that is fitted loses charge by itself',
    'Its string drifts apart while the vehicle stands, and a leak within a cell gets worse.',
    'Wait again with nothing connected; swap it when it does the same.',
    'Voltage after the wait against the one before, a day and cell; judged bound',
  ),
  unsound: rule(
    'unsound',
    'mend',
    'A module that is fitted is not as it should be',
    'What was seen on the bench is behind a lid now: coolant where none should be, a seal that leaks, a terminal that pulls out.',
    'Mend it and record that it is sound, or swap it.',
    'Look, drained, seals and terminals as recorded at intake',
  ),
};

const n = (value: number) => formatNumber(value, 4);

interface Fitted {
  place: string;
  tag: string;
  part: string;
  cells: number;
  item: Item | undefined;
}

/** What was measured and seen at intake, of the modules that are in places: held against their batch. */
export function intakeChecks(design: Design, entries: readonly Entry[]): Check[] {
  const stock = stockOf(entries);
  const readings = intakeReadings(entries);
  const fitted = Object.entries(design.modules).flatMap(([place, { tag, part }]): Fitted[] => {
    const kind = design.parts[part];
    if (kind?.kind !== 'module') return [];
    const item = stock.items.get(stock.inPlace.get(place) ?? '');
    return [{ place, tag, part: partKey(kind), cells: kind.data.cellsInSeries, item }];
  });
  const shelved = [...stock.items.values()].filter(
    (item) => isModule(item) && item.place === null && item.state !== 'rejected' && item.state !== 'retired',
  );
  const parts = new Set(fitted.map(({ part }) => part));
  // What lies on the shelf and is of no said kind is of the only one there is.
  const kindOf = ({ part }: Item) => part ?? (parts.size === 1 ? [...parts][0]! : null);
  return [...parts].flatMap((part) => {
    const own = fitted.filter((one) => one.part === part);
    const batch = [
      ...own.map(({ place }) => place),
      ...shelved.filter((one) => kindOf(one) === part).map(({ id }) => id),
    ];
    return [
      ...own.flatMap((one) => unsoundCheck(one)),
      ...offBatch(own, batch, readings),
      ...losses(own, batch, readings),
    ];
  });
}

const about = ({ place, item }: Fitted) => ({
  subjects: [place],
  parts: item === undefined ? [] : [item.id],
});

function unsoundCheck(one: Fitted): Check[] {
  const { tag, item } = one;
  if (item === undefined) return [];
  const { look, seen } = item;
  const { dateCode: _dateCode, ...withoutDate } = seen;
  const said = [...(look === null ? [] : [`looks ${look}`]), ...seenWords(withoutDate)];
  if (look === null && seen.drained === undefined && seen.seals === undefined && seen.terminals === undefined)
    return [];
  const bad =
    look === 'damaged' ||
    seen.drained === false ||
    (seen.seals ?? 'sound') !== 'sound' ||
    (seen.terminals ?? 'sound') !== 'sound';
  const { subjects, parts } = about(one);
  const message = bad ? `${tag} (${item.serial ?? 'without a number'}): ${said.join(', ')}.` : null;
  // What was accepted of it holds for that alone: another seal or terminal is another matter.
  const grade = (label: string, all: readonly string[], is: string | null | undefined): CheckValue[] =>
    is == null ? [] : [{ label: `${label}, of ${all.length}`, value: all.indexOf(is) + 1, unit: '' }];
  const values = [
    ...grade('look', looks, look),
    ...grade('coolant seals', conditions, seen.seals),
    ...grade('terminals', conditions, seen.terminals),
    ...(seen.drained === undefined ? [] : [{ label: 'drained', value: seen.drained ? 1 : 0, unit: '' }]),
  ];
  return [judge(intakeRules.unsound, subjects, [], message, values, { parts })];
}

function offBatch(
  own: readonly Fitted[],
  batch: readonly string[],
  readings: ReturnType<typeof intakeReadings>,
): Check[] {
  const scored = intakeQuantities.flatMap((quantity) => {
    if (quantity.outlier === null) return [];
    const values = batch.map((id) => readings.get(id)?.get(quantity.template)?.value ?? null);
    const scores = scoreIntake(values, quantity.outlier);
    return scores.bounds === null ? [] : [{ quantity, values, scores }];
  });
  if (scored.length === 0) return [];
  return own.flatMap((one) => {
    const at = batch.indexOf(one.place);
    const measured = scored.filter(({ values }) => values[at] !== null);
    if (measured.length === 0) return [];
    const off = measured.filter(({ scores }) => scores.outliers[at]!);
    const values = off.flatMap(({ quantity, values: all, scores }): CheckValue[] => [
      { label: quantity.title, value: all[at]! / quantity.scale, unit: quantity.unit },
      {
        label: `${quantity.title}, median of the batch`,
        value: scores.median! / quantity.scale,
        unit: quantity.unit,
      },
    ]);
    const said = off.map(
      ({ quantity: { title, unit, scale }, values: all, scores }) =>
        `${title} ${n(all[at]! / scale)} ${unit}, the batch ${n(scores.median! / scale)} ${unit}`,
    );
    const { subjects, parts } = about(one);
    const message = off.length === 0 ? null : `${one.tag}: ${said.join('; ')}.`;
    return [judge(intakeRules.offBatch, subjects, [], message, values, { parts })];
  });
}

function losses(
  own: readonly Fitted[],
  batch: readonly string[],
  readings: ReturnType<typeof intakeReadings>,
): Check[] {
  const cells = own[0]!.cells;
  const lost = batch.map((id) => ownLoss(readings.get(id), cells));
  const scores = scoreIntake(
    lost.map((one) => one?.mvPerDay ?? null),
    lossOutlier,
  );
  return own.flatMap((one) => {
    const at = batch.indexOf(one.place);
    const loss = lost[at];
    if (loss == null) return [];
    const high = loss.mvPerDay > mostLossMvPerDay || scores.outliers[at]!;
    const values: CheckValue[] = [
      { label: 'own loss a day and cell', value: loss.mvPerDay, unit: 'mV' },
      { label: 'days waited', value: loss.waitH / 24, unit: 'd' },
      { label: 'most that is usual', value: mostLossMvPerDay, unit: 'mV' },
      ...(scores.median === null || scores.bounds === null
        ? []
        : [{ label: 'median of the batch', value: scores.median, unit: 'mV' }]),
    ];
    const against =
      scores.bounds === null
        ? `${formatNumber(mostLossMvPerDay)} mV at most is usual`
        : `the batch ${formatNumber(scores.median!)} mV`;
    const { subjects, parts } = about(one);
    const message = high
      ? `${one.tag} lost ${formatNumber(loss.mvPerDay)} mV a day and cell over ${formatNumber(loss.waitH / 24)} days; ${against}.`
      : null;
    return [judge(intakeRules.losesCharge, subjects, [], message, values, { parts })];
  });
}
