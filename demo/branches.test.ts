import type { FigureId, FigureName } from '@torvek/core/figure';
import { describe, expect, test } from '@jest/globals';
import { evaluate as evaluated } from '@torvek/core/design';
import { edit, mainCircuit, type Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { busOf, ownBuses, prechargedCircuits } from '@torvek/core/precharge';
import { libraryBus } from './library-bus';

const charger = 'circuit-charger';
const changed = (recipe: (draft: Design) => void) =>
  edit(libraryBus.design, (draft) => recipe(draft as Design))?.design ?? libraryBus.design;
const behind = (draft: Design) => {
  draft.circuits[charger]!.contactor = 'hollin-k200@1';
};
const withResistor = (draft: Design) => {
  behind(draft);
  draft.circuits[charger]!.resistor = pin(
    draft,
    catalogueOf('resistor').find(({ data }) => data.resistanceOhm === 470)!,
  );
  draft.devices['device-charger']!.bleedOhm = 9000;
};
const value = (design: Design, id: FigureId) => evaluated(design).figures[id]?.value;
const states = (design: Design, rule: string) =>
  evaluated(design).checks.flatMap((check) =>
    check.rule.id === rule ? [[check.subjects[0], check.state]] : [],
  );

describe('a branch behind contactors of its own', () => {
  test('has a bus of its own, which no longer hangs on the main one', () => {
    const design = changed(behind);
    expect(ownBuses(libraryBus.design)).toEqual([]);
    expect(ownBuses(design)).toEqual([charger]);
    expect([busOf(design, mainCircuit), busOf(design, charger)]).toEqual(['bus', charger]);
    const before = value(libraryBus.design, 'precharge.bus:bus:capacitanceF')!;
    expect(value(design, 'precharge.bus:bus:capacitanceF')!).toBeCloseTo(before - 0.00022, 12);
    expect(value(design, `precharge.bus:${charger}:capacitanceF`)).toBe(0.00022);
  });

  test('without capacitors, or fed with the bus, it has none', () => {
    expect(
      ownBuses(
        changed((draft) => (behind(draft), void (draft.devices['device-charger']!.busCapacitanceF = 0))),
      ),
    ).toEqual([]);
    // The inlet has contactors and nothing to fill.
    expect(libraryBus.design.circuits['circuit-inlet']!.contactor).toBeDefined();
  });

  test('without a resistor the pack’s highest voltage meets the warm pack and the branch’s own loop', () => {
    const design = changed(behind);
    const branchOhm = value(design, `conductor.loop:${charger}:loopOhm`)!;
    // Two strings of 72 mΩ and 4 mΩ of links each, warm: 0.8 · 38 mΩ.
    const loopOhm = branchOhm + 0.8 * 0.038;
    const packV = value(design, 'pack.pack:pack:voltageMaxV')!;
    expect(value(design, `precharge.direct:${charger}:inrushA`)!).toBeCloseTo(packV / loopOhm, 6);
    expect(value(design, `precharge.direct:${charger}:i2tA2s`)!).toBeCloseTo(
      (0.00022 * packV ** 2) / (2 * loopOhm),
      6,
    );
    expect(states(design, 'contactor.make')).toContainEqual([charger, 'raised']);
    expect(states(design, 'bus-discharge.no-bleed')).toEqual([
      ['bus', 'clear'],
      [charger, 'raised'],
    ]);
    const make = evaluated(design).checks.find(({ key }) => key === `contactor.make|${charger}`);
    expect(make).toMatchObject({
      state: 'raised',
      message: expect.stringMatching(/makes 300 A where 5402 A rush in without pre-charge\.$/) as unknown,
      parts: ['hollin-k200@1'],
    });
    expect(value(design, `precharge.direct:${charger}:inrushA`)!).toBeLessThan(
      value(design, `fuse.fault:${charger}/largest:prospectiveA`)!,
    );
  });

  test('a resistor of its own takes the inrush away, and is judged like the main one', () => {
    const design = changed(withResistor);
    expect(prechargedCircuits(design)).toEqual([mainCircuit, charger]);
    // Its bleed of 9 kΩ stands on its bus while that fills.
    expect(value(design, `precharge.run:${charger}:timeConstantS`)!).toBeCloseTo(
      (470 * 0.00022 * 9000) / 9470,
      9,
    );
    expect(value(design, `precharge.direct:${charger}:inrushA`)).toBeUndefined();
    expect(states(design, 'contactor.make')).toContainEqual([charger, 'clear']);
    expect(states(design, 'precharge.shorted-energy')).toEqual([
      [charger, 'clear'],
      [mainCircuit, 'clear'],
    ]);
    // ln(403.2/60)·9 kΩ·220 µF.
    expect(value(design, `precharge.discharge:${charger}:timeToSafeS`)!).toBeCloseTo(
      9000 * 0.00022 * Math.log((96 * 4.2) / 60),
      6,
    );
  });
});

describe('a cable whose way has parts', () => {
  const parted = changed((draft) => {
    const own = draft.circuits[charger]!;
    own.stretches = [
      { tag: 'Floor', lengthM: 4, ambientC: 30 },
      { tag: 'Engine bay', lengthM: 2.4, ambientC: 95, grouped: 4 },
    ];
  });
  test('keeps its loop, carries what its hottest part does, and says which part that is', () => {
    expect(value(parted, `conductor.loop:${charger}:loopOhm`)).toBeCloseTo(
      value(libraryBus.design, `conductor.loop:${charger}:loopOhm`)!,
      12,
    );
    const ampacity = (design: Design) => value(design, `conductor.cable:${charger}:ampacityA`)!;
    expect(ampacity(parted)).toBeLessThan(ampacity(libraryBus.design));
    const short = changed((draft) => {
      draft.circuits[charger]!.stretches = [
        { tag: 'Floor', lengthM: 4, ambientC: 30 },
        { tag: 'Engine bay', lengthM: 2.4, ambientC: 118, grouped: 6 },
      ];
    });
    const check = evaluated(short).checks.find(({ key }) => key === `cable.overloaded|${charger}`);
    expect(check).toMatchObject({
      state: 'raised',
      message: expect.stringMatching(/^Engine bay: /) as unknown,
    });
  });
  test('a part without a length leaves it uncomputed and names the field', () => {
    const open = changed((draft) => {
      draft.circuits[charger]!.stretches = [{ tag: 'Floor', lengthM: 4 }, { tag: 'Roof' }];
    });
    const figure = evaluated(open).figures[`conductor.cable:${charger}:voltageDropV`]!;
    expect(figure.value).toBeNull();
    expect(figure.gaps).toContainEqual({
      kind: 'not-given',
      path: `circuits.${charger}.stretches.1.lengthM`,
      label: 'length of Roof of Charger',
    });
  });
});

describe('a bus that is emptied actively', () => {
  const active = (bleedOhm: number | undefined) =>
    changed((draft) => {
      const inverter = draft.devices['device-inverter']!;
      inverter.activeOhm = 220;
      if (bleedOhm === undefined) delete inverter.bleedOhm;
      else inverter.bleedOhm = bleedOhm;
    });
  const packV = 96 * 4.2;
  const farad = value(libraryBus.design, 'precharge.bus:bus:capacitanceF')!;
  const discharge = (design: Design, name: FigureName<'precharge.discharge'>) =>
    value(design, `precharge.discharge:bus:${name}`)!;

  test('falls by both resistors together; only the one that is always on gives heat', () => {
    const design = active(2000);
    const both = 1 / (1 / 220 + 1 / 2000);
    expect(value(design, 'precharge.bus:bus:emptyOhm')!).toBeCloseTo(both, 9);
    expect(discharge(design, 'timeToSafeS')).toBeCloseTo(both * farad * Math.log(packV / 60), 9);
    expect(discharge(design, 'bleedPowerAtVoltageW')).toBeCloseTo(packV ** 2 / 2000, 9);
    expect(states(design, 'bus-discharge.active-alone')).toEqual([['bus', 'clear']]);
  });

  test('alone it gives no heat while it runs, and a note that nothing else would', () => {
    const design = active(undefined);
    expect(discharge(design, 'timeToSafeS')).toBeCloseTo(220 * farad * Math.log(packV / 60), 9);
    expect(discharge(design, 'bleedPowerAtVoltageW')).toBe(0);
    expect(states(design, 'bus-discharge.no-bleed')).toEqual([['bus', 'clear']]);
    expect(states(design, 'bus-discharge.active-alone')).toEqual([['bus', 'raised']]);
  });
});
