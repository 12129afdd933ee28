import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../whole/design';
import { bus350 } from '../../whole/design/clean/library';
import { edit, startLowOf, supplyOf, type Design } from '../../model/document';
import { contactorsOf } from './supply-step';

const changed = (recipe: (draft: Design) => void) =>
  edit(bus350, (draft) => recipe(draft as Design))?.design ?? bus350;
const check = (design: Design, rule: string, subject = 'circuit-main') =>
  evaluate(design).checks.find((one) => one.rule.id === rule && one.subjects.includes(subject))!;
const valueOf = (design: Design, rule: string, label: string) => {
  const found = check(design, rule);
  return found.state === 'not-checked' ? null : found.values.find((one) => one.label === label)?.value;
};
/** Gives the pre-charge contactor other data. */
const contactor = (draft: Design) => {
  const part = draft.parts[draft.circuits['circuit-main']!.prechargeContactor!];
  if (part?.kind !== 'contactor') throw new Error('no contactor');
  return part.data;
};

describe('the pre-charge contactor', () => {
  test('makes and breaks the highest pack voltage over the least resistance', () => {
    const part = bus350.parts['ember-82@1'];
    const least = part?.kind === 'resistor' ? 82 * (1 - part.data.toleranceFraction) : NaN;
    const first = 403.2 / least;
    expect(valueOf(bus350, 'contactor.precharge-make', 'first moment')).toBeCloseTo(first, 9);
    expect(valueOf(bus350, 'contactor.precharge-break', 'on a shorted bus')).toBeCloseTo(first, 9);
    const just = (field: 'makeA' | 'breakA', factor: number) =>
      changed((draft) => (contactor(draft)[field] = first * factor));
    expect(check(just('makeA', 1.001), 'contactor.precharge-make').state).toBe('clear');
    expect(check(just('makeA', 0.999), 'contactor.precharge-make').state).toBe('raised');
    expect(check(just('breakA', 1.001), 'contactor.precharge-break').state).toBe('clear');
    expect(check(just('breakA', 0.999), 'contactor.precharge-break').state).toBe('raised');
  });

  test('without coil data its pull-in is not checked', () => {
    const unknown = changed((draft) => delete contactor(draft).pullInV);
    expect(check(unknown, 'contactor.precharge-pull-in').state).toBe('not-checked');
  });
});

describe('the supply of the low-voltage side', () => {
  test('its lowest at a start is three quarters of the nominal, unless it is given', () => {
    expect(startLowOf({})).toBe(9);
    expect(startLowOf({ supplyV: 24 })).toBe(18);
    expect(startLowOf({ supplyV: 24, startLowV: 16 })).toBe(16);
    expect(supplyOf({})).toBe(12);
  });

  test('coils of another nominal voltage are named where they sit', () => {
    const on24 = changed((draft) => (draft.settings.supplyV = 24));
    const found = check(on24, 'contactor.coil-supply');
    expect(found.state === 'raised' && found.message).toBe(
      'The contactors of Main: 12 V; the pre-charge contactor of Main: 12 V; the supply has 24 V.',
    );
    expect(check(on24, 'contactor.coil-supply', 'string-2').state).toBe('raised');
    expect(check(bus350, 'contactor.coil-supply', 'string-2').state).toBe('clear');
  });

  test('a coil for more than the supply is judged by its pull-in alone', () => {
    const high = changed((draft) => Object.assign(contactor(draft), { coilV: 24, pullInV: 15 }));
    expect(check(high, 'contactor.coil-supply').state).toBe('clear');
    expect(check(high, 'contactor.precharge-pull-in').state).toBe('raised');
  });

  test('every contactor is listed', () => {
    expect(contactorsOf(bus350).map(({ subject }) => subject)).toEqual([
      'circuit-main',
      'circuit-main',
      'string-1',
      'string-2',
    ]);
  });
});
