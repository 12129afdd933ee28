import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../whole/design';
import { truck115 } from '../../whole/design/clean/orchard';
import { edit, type CircuitItem, type Design } from '../../model/document';
import { clearingTimeS } from './melting';

const tapped = (more: Partial<CircuitItem>, recipe: (draft: Design) => void = () => undefined) =>
  edit(truck115, (draft) => {
    Object.assign(draft.circuits['circuit-heater']!, more);
    recipe(draft as Design);
  })!.design;
const check = (design: Design) =>
  evaluate(design).checks.find((one) => one.rule.id === 'fuse.tap-unprotected');

describe('the wire from the tap to the fuse', () => {
  test('says nothing where nobody gives its length', () => {
    expect(check(truck115)).toBeUndefined();
  });

  test('a short one may be as thin as it likes', () => {
    expect(check(tapped({ tapLengthM: 0.2, tapAreaMm2: 0.5 }))!.state).toBe('clear');
  });

  test('a long one has to bear what the main fuse lets through', () => {
    const design = tapped({ tapLengthM: 1, tapAreaMm2: 1 });
    const { figures, checks } = evaluate(design);
    const found = checks.find((one) => one.rule.id === 'fuse.tap-unprotected')!;
    if (found.state === 'not-checked') throw new Error('not checked');
    const through = found.values.find(({ label }) => label === 'let through upstream')!.value;
    const main = design.parts['calderside-f250l@1'];
    if (main?.kind !== 'fuse') throw new Error('no fuse');
    const smallest = figures['fuse.fault:circuit-heater/smallest:prospectiveA']!.value!;
    // Slowest at the smallest fault: there it lets the most through.
    expect(through).toBeCloseTo(smallest ** 2 * clearingTimeS(main.data, smallest)!, -1);
    const needed = Math.sqrt(through) / 123;
    expect(check(tapped({ tapLengthM: 1, tapAreaMm2: needed * 1.01 }))!.state).toBe('clear');
    expect(check(tapped({ tapLengthM: 1, tapAreaMm2: needed * 0.99 }))!.state).toBe('raised');
  });

  test('before the mains, with no fuse in the string, nothing protects it', () => {
    const found = check(tapped({ tapLengthM: 1, tapAreaMm2: 95, tap: 'before' }))!;
    expect(found.state === 'raised' && found.message).toContain('0 fuses stand upstream');
  });
});
