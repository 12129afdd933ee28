import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Ajv2020 } from 'ajv/dist/2020.js';
import * as yup from 'yup';
import { jsonSchemaOf, list, mapOf, number, oneOf, record, span, table, text } from '.';
import { passesQuickly } from './quick';

/** One of everything, nested. */
const schema = record({
  a: number({ above: 0, max: 10 }),
  b: number.optional({ integer: true }),
  name: text(5),
  kind: oneOf.optional(['x', 'y']),
  curve: table({ columns: [{}, { min: 0 }], minRows: 2 }),
  window: span({ min: 0 }),
  items: list(record({ id: text(), load: table.optional({ columns: [{}, {}], rising: false }) }), {
    maxRows: 3,
  }),
  by: mapOf(number({ min: 0 }), 3),
  more: record.optional({ z: number() }),
});

const right = {
  a: 1,
  name: 'abc',
  curve: [
    [0, 1],
    [1, 0],
  ],
  window: [1, 2],
  items: [{ id: 'one', load: [[1, -1]] }, { id: 'two' }],
  by: { k: 1, l: 2 },
  more: { z: 3 },
};

const slowly = (value: unknown) => {
  try {
    schema.validateSync(value, { strict: true, abortEarly: true });
    return true;
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return false;
  }
};

describe('the quick look at an input', () => {
  test('lets a right one pass, with and without what may be absent', () => {
    const { more: _more, ...without } = right;
    expect([passesQuickly(schema, right), passesQuickly(schema, without)]).toEqual([true, true]);
  });

  test('is of yup’s opinion whatever is put in any place', () => {
    const odd = fc.oneof(
      fc.constantFrom<unknown>(undefined, null, true, '', 'x', 'abcdefgh', [], {}, [[1, 2]], [1, 2], [2, 1]),
      fc.double({ min: -20, max: 20 }),
      fc.constantFrom(Infinity, NaN, 1e12, -1, 3),
      fc.constantFrom<unknown>({ 'a.b': 1 }, { k: -1 }, { a: 1, b: 2, c: 3, d: 4 }, { z: 'text' }),
      fc.constantFrom<unknown>([{ id: 'q' }], [{ id: '' }], [{ id: 'q', extra: 1 }], [{}, {}, {}, {}]),
    );
    const place = fc.constantFrom(...Object.keys(right), 'b', 'kind', 'unheardOf');
    const fits = new Ajv2020({ strict: false }).compile(jsonSchemaOf(schema));
    const seen = { passes: 0, fails: 0 };
    fc.assert(
      fc.property(fc.array(fc.tuple(place, odd), { maxLength: 2 }), (changes) => {
        const value = { ...right, ...Object.fromEntries(changes) };
        const quick = passesQuickly(schema, value);
        expect(quick).toBe(slowly(value));
        // What it says of itself is never stricter than it is.
        if (quick) expect(fits(JSON.parse(JSON.stringify(value)))).toBe(true);
        seen[quick ? 'passes' : 'fails'] += 1;
      }),
      { numRuns: 1000, seed: 20261126 },
    );
    expect(Math.min(seen.passes, seen.fails)).toBeGreaterThan(50);
  });

  test('knows nothing of a schema that is not of this room', () => {
    expect(passesQuickly(yup.mixed(), 1)).toBe(false);
    expect(() => jsonSchemaOf(yup.mixed())).toThrow('says nothing of itself');
  });
});
