import { expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { calculators } from '../calculators';
import cooling from './cooling-charging.json' with { type: 'json' };
import electric from './electric.json' with { type: 'json' };
import monitoring from './monitoring.json' with { type: 'json' };
import network from './network.json' with { type: 'json' };
import routing from './routing.json' with { type: 'json' };

const ajv = new Ajv2020({ strict: false });
const sources: Record<string, { input: object }[]>[] = [electric, network, routing, cooling, monitoring];
const examples = sources.flatMap((one) =>
  Object.entries(one).flatMap(([name, list]) => list.map(({ input }) => ({ name, input }))),
);

test.each([...calculators.values()].map((one) => [one.name, one] as const))(
  'what %s says of itself lets its worked examples pass, and no field that it does not know',
  (name, calculator) => {
    const fits = ajv.compile(calculator.inputSchema());
    const own = examples.filter((one) => one.name === name);
    for (const { input } of own) {
      expect({ input, fits: fits(input), errors: fits.errors }).toEqual({ input, fits: true, errors: null });
      expect(fits({ ...input, unheardOf: 1 })).toBe(false);
    }
    expect(fits([])).toBe(false);
  },
);

test('what may be absent says what holds then', () => {
  const { properties = {}, required } = calculators.get('precharge')!.inputSchema();
  expect(properties['thresholdFraction']).toEqual({
    type: 'number',
    exclusiveMinimum: 0,
    exclusiveMaximum: 1,
    default: 0.95,
  });
  expect(required).toEqual(['packVoltageV', 'busCapacitanceF', 'resistanceOhm']);
});

test('what a schema lets pass in a place the calculator does not refuse for its shape', () => {
  let refused = 0;
  for (const calculator of calculators.values()) {
    const fits = ajv.compile(calculator.inputSchema());
    for (const { input } of examples.filter((one) => one.name === calculator.name))
      for (const field of Object.keys(input))
        for (const odd of [null, { odd: true }, [[[]]], 1e12]) {
          const body = { ...input, [field]: odd };
          if (calculator.answer(body).ok) expect(fits(body)).toBe(true);
          else if (fits(body))
            expect({ name: calculator.name, field, odd }).toEqual('a field that says too little');
          else refused += 1;
        }
  }
  expect(refused).toBeGreaterThan(1200);
});
