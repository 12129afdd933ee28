import { describe, expect, test } from '@jest/globals';
import { edit, type Design } from '../../model/document';
import { evaluate } from '../../whole/design';
import { van230 } from '../../whole/design/clean/library';
import { cart48 } from '../../whole/design/clean/orchard';

const changed = (recipe: (draft: Design) => void, of = van230) =>
  edit(of, (draft) => recipe(draft as Design))?.design ?? of;
const raised = (design: Design, rule: string) =>
  evaluate(design).checks.flatMap((check) =>
    check.state === 'raised' && check.rule.id === rule ? [check.message] : [],
  );

describe('what is usual', () => {
  test('a bound itself is usual, a step beyond it is not; the sentence is in the unit that is shown', () => {
    const wheel = (wheelDiameterM: number) =>
      raised(
        changed(({ vehicle }) => void (vehicle.wheelDiameterM = wheelDiameterM)),
        'vehicle.unusual',
      );
    expect([wheel(0.25), wheel(1.8)]).toEqual([[], []]);
    expect(wheel(1.81)).toEqual(['Wheel diameter: 1.81 m, where 0.25 to 1.8 m is usual.']);
    const bus = changed(({ devices }) => void (devices['device-inverter']!.busCapacitanceF = 0.06));
    expect(raised(bus, 'pack.unusual')).toEqual(['Bus capacitance: 60000 µF, where 0 to 50000 µF is usual.']);
  });

  test('what is wrong with one thing is one finding for each station where it is mended', () => {
    const design = changed(({ boxes }) => {
      Object.assign(boxes['box-front']!, { anchors: 0.5, widthM: 80, creepageMm: 900 });
    });
    expect(raised(design, 'pack.unusual')).toEqual([
      'Width: 80 m, where 0.05 to 3 m is usual. Anchors: 0.5, where 1 to 100 is usual.',
    ]);
    expect(raised(design, 'protect.unusual')).toEqual(['Creepage: 900 mm, where 0.05 to 200 mm is usual.']);
  });

  test('of the sheet of a pinned part, too', () => {
    const design = changed(({ parts }) => {
      const fuse = parts['calderside-f160@1']!;
      if (fuse.kind === 'fuse') fuse.data.breakingA = 30;
    });
    expect(raised(design, 'pack.unusual')).toEqual([
      'Calderside F160-500, 160 A 500 V, full range, fast, breaking capacity: 30 A, where 50 to 300000 A is usual.',
    ]);
  });
});

describe('what norms ask', () => {
  test('500 Ω/V where an inverter joins AC to the bus, 100 Ω/V where none does, nothing below 60 V', () => {
    const at = (ohmPerV: number, recipe: (draft: Design) => void = () => undefined, of = van230) =>
      raised(
        changed((draft) => {
          draft.settings.insulationOhmPerV = ohmPerV;
          recipe(draft);
        }, of),
        'norms.insulation',
      ).length;
    expect([at(499), at(500)]).toEqual([1, 0]);
    const without = (draft: Design) => void (draft.devices['device-inverter']!.kind = 'other');
    expect([at(99, without), at(100, without)]).toEqual([1, 0]);
    expect(at(50, undefined, cart48)).toBe(0);
  });

  test('a touch limit of 60 V is the most', () => {
    const at = (touchLimitV: number) =>
      raised(
        changed(({ settings }) => void (settings.touchLimitV = touchLimitV)),
        'norms.touch-limit',
      );
    expect(at(60)).toEqual([]);
    expect(at(61)).toEqual(['The touch limit is set to 61 V; 60 V is the most that is usual.']);
  });
});

describe('what cannot be', () => {
  test('is one finding for each thing, whatever hangs on it, and what hangs on it is not checked', () => {
    const design = changed(
      ({ pack }) => void Object.assign(pack, { socLowFraction: 0.9, socHighFraction: 0.1 }),
    );
    const { checks } = evaluate(design);
    expect(
      checks.filter(({ rule }) => rule.id === 'pack.contradiction').map(({ subjects }) => subjects),
    ).toEqual([['pack']]);
    expect(checks.find(({ key }) => key === 'pack.cell-below-minimum-at-peak|pack')?.state).toBe(
      'not-checked',
    );
  });

  test('is accepted for what it says: another contradiction of the same thing is not accepted with it', () => {
    const valuesOf = (change: Partial<Design['pack']>) =>
      evaluate(changed(({ pack }) => void Object.assign(pack, change))).checks.flatMap((check) =>
        check.state === 'raised' && check.rule.id === 'pack.contradiction'
          ? check.values.map(({ label }) => label)
          : [],
      );
    const window = valuesOf({ socLowFraction: 0.9, socHighFraction: 0.1 });
    const links = valuesOf({ linkResistanceOhm: -0.001 });
    expect([window.length, links.length]).toEqual([1, 1]);
    expect(window).not.toEqual(links);
  });

  test('is not said of what is only not given yet', () => {
    const design = changed(({ pack }) => void delete pack.socLowFraction);
    expect(raised(design, 'pack.contradiction')).toEqual([]);
  });
});
