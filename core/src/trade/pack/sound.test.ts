import { describe, expect, test } from '@jest/globals';
import { edit, type Design } from '../../model/document';
import { evaluate } from '../../whole/design';
import { bus350, bus350Three } from '../../whole/design/clean/library';

const changed = (design: Design, recipe: (draft: Design) => void) =>
  edit(design, (draft) => recipe(draft as Design))?.design ?? design;
const said = (design: Design, rule: string) =>
  evaluate(design).checks.flatMap((check) =>
    check.state === 'raised' && check.rule.id === rule ? [check.message] : [],
  );
const continuous = (amps: number) => (draft: Design) => {
  for (const part of Object.values(draft.parts)) if (part.kind === 'module') part.data.continuousA = amps;
};

describe('what is asked of modules', () => {
  const rms = (id: string) => evaluate(bus350Three).figures[`network.load:${id}:rmsA`]!.value!;

  test('is what drives the vehicle, over all strings; charging flows at other times', () => {
    const eachA = (rms('circuit-main') + rms('circuit-dcdc')) / 3;
    const rule = 'pack.module-continuous-current';
    expect(said(changed(bus350Three, continuous(eachA * 1.001)), rule)).toEqual([]);
    expect(said(changed(bus350Three, continuous(eachA * 0.999)), rule)).toHaveLength(1);
  });

  test('a load up to the peak is judged, a load above it is not', () => {
    const peak = (amps: number) =>
      said(
        changed(bus350, ({ pack }) => void (pack.peakCurrentA = amps)),
        'pack.load-over-peak',
      );
    expect(peak(400)).toEqual([]);
    expect(peak(399)).toEqual(['The load rises to 400 A; the pack is judged at 399 A.']);
  });
});

describe('circuits together', () => {
  const together = (design: Design) => said(design, 'fuse.branches-together');
  const dcdc = (amps: number) => (draft: Design) =>
    void (draft.circuits['circuit-dcdc']!.loadProfile = [[60, amps]]);
  const mainA = evaluate(bus350).figures['network.load:circuit-main:rmsA']!.value!;

  test('are more than the contactors carry, when all but the charger run at once', () => {
    // The main fuse of 350 A stands at 35 °C, where it carries 97 % of its rating.
    const carries = 350 * (1 - (0.1 * 10) / 35);
    expect(together(changed(bus350, dcdc(carries - mainA - 1)))).toEqual([]);
    expect(together(changed(bus350, dcdc(carries - mainA + 1)))).toHaveLength(1);
    const charging = changed(bus350, (draft) => {
      draft.circuits['circuit-charger']!.loadProfile = [[60, 400]];
    });
    expect(together(charging)).toEqual([]);
  });

  test('before the mains are not fed through them', () => {
    const before = changed(bus350, (draft) => {
      dcdc(400)(draft);
      draft.circuits['circuit-dcdc']!.tap = 'before';
    });
    expect(together(before)).toEqual([]);
  });
});
