import { describe, expect, test } from '@jest/globals';
import { calculators } from '../calculators';
import cooling from './cooling-charging.json' with { type: 'json' };
import electric from './electric.json' with { type: 'json' };
import monitoring from './monitoring.json' with { type: 'json' };
import network from './network.json' with { type: 'json' };
import routing from './routing.json' with { type: 'json' };

interface Example {
  name: string;
  input: unknown;
  expected: unknown;
  toleranceFraction?: number;
}

/** Every expected figure within the tolerance; what is not expected is not compared. */
function compare(actual: unknown, expected: unknown, tolerance: number, path = 'result'): void {
  if (typeof expected === 'number') {
    if (typeof actual !== 'number')
      throw new Error(`${path}: ${String(actual)} is no number, ${expected} expected`);
    const allowed = Math.max(Math.abs(expected) * tolerance, 1e-9);
    if (Math.abs(actual - expected) > allowed) throw new Error(`${path}: ${actual}, ${expected} expected`);
  } else if (Array.isArray(expected)) {
    expect({ path, length: (actual as unknown[]).length }).toEqual({ path, length: expected.length });
    expected.forEach((one, i) => compare((actual as unknown[])[i], one, tolerance, `${path}.${i}`));
  } else if (typeof expected === 'object' && expected !== null) {
    for (const [key, one] of Object.entries(expected)) {
      compare((actual as Record<string, unknown>)[key], one, tolerance, `${path}.${key}`);
    }
  } else {
    expect({ path, value: actual }).toEqual({ path, value: expected });
  }
}

describe.each(
  Object.entries({ ...electric, ...network, ...routing, ...cooling, ...monitoring } as unknown as Record<
    string,
    Example[]
  >),
)('worked examples of %s', (name, examples) => {
  test.each(examples.map((example) => [example.name, example] as const))('%s', (_title, example) => {
    const answer = calculators.get(name)!.answer(example.input);
    if (!answer.ok) throw new Error(JSON.stringify(answer.issues));
    compare(answer.answer.result, example.expected, example.toleranceFraction ?? 0.005);
    expect(answer.answer.working.length).toBeGreaterThan(0);
  });
});
