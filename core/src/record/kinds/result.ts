import { list, number, oneOf, record, table, text } from '../../ground/shape';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { defineKind, shortTopic, type Fields } from '../kind';
import type { Detail, Measured, Verdict } from '../measured';
import { detail, remark, words } from '../shapes';

export interface ResultBody {
  kind: 'result';
  step: string;
  /** The thing that was measured, where the step is of a thing and not of its place. */
  item?: string;
  title: string;
  /** How the measurement came in. */
  entered: 'stand-in' | 'typed' | 'pasted';
  measured: Measured;
  /** The expectation in words, as it was judged against. */
  expected: string;
  verdict: Verdict;
  reasons: string[];
  details: Detail[];
  /** The entry that opened the HV gate it was taken behind. */
  confirmedBy?: number;
  /** A sub-assembly on the bench, before it is in the vehicle: kept beside the result there, and no gate goes by it. */
  occasion?: 'bench';
  /** It was judged by the vehicle as built, up to this entry, which differs from the design. */
  asBuilt?: number;
  remark?: string;
}

/** The fields of a hold under pressure, as it is measured and as it stands. */
export const holdFields: Fields = {
  kind: oneOf(['hold']),
  startKPaGauge: number(),
  endKPaGauge: number(),
  startC: number({ above: -273.15, max: 200 }),
  endC: number({ above: -273.15, max: 200 }),
  minutes: number({ above: 0, max: 100_000 }),
  atmosphereKPa: number.optional({ above: 0, max: 200 }),
  endAtmosphereKPa: number.optional({ above: 0, max: 200 }),
  unit: oneOf(['kPa']),
};

/** The fields of a ladder of taps. */
export const ladderFields: Fields = {
  kind: oneOf(['ladder']),
  taps: list(number({ min: -2000, max: 2000 }), { minRows: 1, maxRows: 200 }),
  unit: oneOf(['V']),
};

/** The fields of a list of readings. */
export const listFields: Fields = {
  kind: oneOf(['list']),
  values: list(number({ min: -1e6, max: 1e6 }), { minRows: 1, maxRows: 200 }),
  unit: words(20),
};

const measuredShapes = {
  trace: {
    kind: oneOf(['trace']),
    samples: table({ columns: [{}, {}], minRows: 1, maxRows: 20_000, rising: false }),
    packVoltageV: number(),
    unit: oneOf(['V']),
  },
  hold: holdFields,
  ladder: ladderFields,
  list: listFields,
  value: { kind: oneOf(['value']), value: number(), unit: words(20), over: oneOf.optional([true, false]) },
};
const measured = record.by<keyof typeof measuredShapes>(measuredShapes, ({ kind }) =>
  Object.hasOwn(measuredShapes, String(kind)) ? (kind as keyof typeof measuredShapes) : 'value',
);

/** A measurement in a few words. */
export function measuredText(value: Measured): string {
  switch (value.kind) {
    case 'value':
      return `${value.over === true ? 'more than ' : ''}${formatQuantity(value.value, value.unit, 4)}`;
    case 'trace':
      return `${value.samples.length} samples`;
    case 'ladder':
      return `${value.taps.length} taps up to ${formatQuantity(Math.max(...value.taps), 'V', 4)}`;
    case 'list':
      return `${value.values.length} readings, ${formatNumber(Math.min(...value.values), 4)} to ${formatQuantity(Math.max(...value.values), value.unit, 4)}`;
    case 'hold':
      return `${formatQuantity(value.startKPaGauge, 'kPa', 4)} to ${formatQuantity(value.endKPaGauge, 'kPa', 4)} in ${formatQuantity(value.minutes, 'min', 3)}`;
  }
}

/** A step of the procedure was measured and judged. */
export const result = defineKind<ResultBody>({
  kind: 'result',
  many: 'results',
  fields: {
    step: text(160),
    item: text.optional(160),
    title: words(400),
    entered: oneOf(['stand-in', 'typed', 'pasted']),
    measured,
    expected: words(1000),
    verdict: oneOf(['pass', 'fail']),
    reasons: list(words(1000), { maxRows: 200 }),
    details: list(detail, { maxRows: 200 }),
    confirmedBy: number.optional({ min: 1, integer: true }),
    occasion: oneOf.optional(['bench']),
    asBuilt: number.optional({ min: 1, integer: true }),
    remark,
  },
  stands: ({ verdict }) => (verdict === 'fail' ? 'both' : 'newest'),
  topic: ({ body }) =>
    shortTopic(
      `result:${body.step}${body.item === undefined ? '' : `@${body.item}`}${body.occasion === undefined ? '' : `#${body.occasion}`}`,
    ),
  title: ({ title, occasion }) => (occasion === 'bench' ? `${title}, on the bench` : title),
  outcome: (body) => `${measuredText(body.measured)}, ${body.verdict === 'pass' ? 'passed' : 'failed'}`,
});
