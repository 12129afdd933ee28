import type { FigureId } from '@torvek/core/figure';
import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import { edit, type Design } from '@torvek/core/document';
import { arrangeInputOf, boxContents, stringWay, takeArrangement, arrange } from '@torvek/core/pack';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void) => edit(bus, (draft) => recipe(draft as Design))!.design;
const value = (design: Design, id: FigureId) => evaluate(design).figures[id]?.value;

describe('boxes as they are built', () => {
  test('the anchors of the nose box: 4 modules of 31.5 kg and 38 kg at 20 g', () => {
    expect(value(bus, 'pack.box:box-nose:anchorForceN')).toBeCloseTo((4 * 31.5 + 38) * 9.80665 * 20, 6);
  });

  test('insulation that modules stand on bears them twice over: 4 of 31.5 kg on 0.4 m² press 6.18 kPa', () => {
    const on = (floorM2: number, floorKPa: number) =>
      evaluate(
        changed((draft) => void Object.assign(draft.boxes['box-nose']!, { floorM2, floorKPa })),
      ).checks.find((one) => one.rule.id === 'pack.floor-crushed' && one.subjects.includes('box-nose'))!;
    const kPa = (2 * 4 * 31.5 * 9.80665) / 1000 / 0.4;
    expect(kPa).toBeCloseTo(6.178, 3);
    expect(on(0.4, kPa).state).toBe('clear');
    const crushed = on(0.4, kPa - 0.01);
    expect(crushed.state === 'raised' && crushed.values[2]).toEqual({
      label: 'presses',
      value: expect.closeTo(kPa, 9),
      unit: 'kPa',
    });
    expect(on(0, 20).state).toBe('not-checked');
  });

  test('without the g-load of the place the force is not computed, and the field is named', () => {
    const without = changed((draft) => void delete draft.settings.anchorG);
    const figure = evaluate(without).figures['pack.box:box-nose:anchorForceN']!;
    expect(figure.value).toBeNull();
    expect(figure.gaps).toEqual([
      { kind: 'not-given', path: 'settings.anchorG', label: 'g-load of the local rule' },
    ]);
  });

  test('a heater rated 5 kW at 360 V gives 3.2 kW at 288 V and 6.27 kW at 403.2 V', () => {
    expect(value(bus, 'pack.heater:device-heater:powerAtLowW')).toBeCloseTo(
      5000 * ((96 * 3.44) / 360) ** 2,
      6,
    );
    expect(value(bus, 'pack.heater:device-heater:powerAtMaxW')).toBeCloseTo(5000 * (403.2 / 360) ** 2, 6);
  });

  test('36 cells at a link pitch of 56 mm fit the truck’s box in one layer; at 62 mm only turned, at 63 mm no more', () => {
    const layers = (pitch: number) =>
      boxContents(
        edit(orchardTruck.design, (draft) => {
          (draft as Design).boxes['box-seat']!.linkPitchMm = pitch;
        })?.design ?? orchardTruck.design,
      )
        .get('box-seat')!
        .fit?.slots.map(({ layer }) => layer);
    expect(new Set(layers(56))).toEqual(new Set([0]));
    // 740 × 560 mm inside: 13 pitches of 56 mm and three across; turned, nine of 62 mm across and four along.
    expect(layers(62)).toHaveLength(36);
    expect(layers(63)).toBeUndefined();
  });
});

describe('the way of the strings', () => {
  test('four joints lead from box to box, ten stay inside', () => {
    const { linksInside, linksBetween, wayM, loose } = stringWay(bus);
    expect([linksInside, linksBetween, loose]).toEqual([10, 4, 0]);
    // Each string: collector to nose, floor, tail and back, along the axes between the middles.
    const one = 2.85 + 0.6 + 0.13 + (1.65 + 0.55 + 0.23) + (3.6 + 0.55 + 0.1) + (2.4 + 0.6 + 0);
    expect(wayM).toBeCloseTo(2 * one, 9);
  });
});

describe('proposals', () => {
  const { input, gaps } = arrangeInputOf(bus);
  const search = arrange(input!);
  let step = search.next();
  while (step.done !== true) step = search.next();
  const { best } = step.value;

  test('are made from the design, without the box of the mains', () => {
    expect(gaps).toEqual([]);
    expect(input!.boxes.map(({ id }) => id)).toEqual(['box-nose', 'box-left', 'box-tail']);
  });

  test.each(best.map((one, i) => [i, one] as const))('number %i comes out as it was promised', (_, one) => {
    const taken = changed((draft) => takeArrangement(draft, one));
    const { figures } = evaluate(taken);
    expect(figures['vehicle.axles:vehicle:shiftPoints']!.value).toBeCloseTo(one.shiftPoints, 9);
    expect(figures['vehicle.axles:vehicle:frontKg']!.value).toBeCloseTo(one.frontKg, 6);
    expect(stringWay(taken).linksBetween).toBe(one.linksBetween);
    expect(stringWay(taken).wayM).toBeCloseTo(one.linkWayM, 9);
    expect(Object.values(taken.modules).every(({ box }) => box !== undefined)).toBe(true);
    for (const { fit } of boxContents(taken).values()) expect(fit).not.toBeNull();
  });

  test('a module that stays is where it was in every proposal, and its string has what it had', () => {
    // The fourth of string 1 sits in the floor box; the last of string 2 in the tail box.
    const bound = changed((draft) => {
      draft.modules['module-104']!.stays = true;
      draft.modules['module-208']!.stays = true;
    });
    const asked = arrangeInputOf(bound).input!;
    expect(asked.strings.map(({ stay }) => stay)).toEqual([
      { 'box-left': { 'brackwater-m12@1': 1 } },
      { 'box-tail': { 'brackwater-m12@1': 1 } },
    ]);
    const found = arrange(asked);
    let at = found.next();
    while (at.done !== true) at = found.next();
    expect(at.value.best.length).toBeGreaterThan(2);
    for (const one of at.value.best) {
      const taken = changed((draft) => {
        draft.modules['module-104']!.stays = true;
        draft.modules['module-208']!.stays = true;
        takeArrangement(draft, one);
      });
      expect(taken.modules['module-104']!.box).toBe('box-left');
      expect(taken.modules['module-208']!.box).toBe('box-tail');
      for (const [id, { modules }] of Object.entries(taken.strings))
        expect([...modules].sort()).toEqual([...bus.strings[id]!.modules].sort());
      expect(evaluate(taken).figures['vehicle.axles:vehicle:rearKg']!.value).toBeCloseTo(one.rearKg, 6);
    }
  });

  test('proposals keep the limits of both axles', () => {
    expect(input!.rearLimitKg).toBe(bus.vehicle.rearLimitKg);
    expect(input!.frontLimitKg).toBe(bus.vehicle.frontLimitKg);
    for (const one of best) {
      expect(one.rearKg).toBeLessThanOrEqual(bus.vehicle.rearLimitKg!);
      expect(one.frontKg).toBeLessThanOrEqual(bus.vehicle.frontLimitKg!);
    }
  });

  test('what is missing is named by its field', () => {
    const without = changed((draft) => {
      delete draft.boxes['box-tail']!.widthM;
      delete draft.vehicle.wheelbaseM;
    });
    expect(arrangeInputOf(without).gaps.map((gap) => ('path' in gap ? gap.path : ''))).toEqual([
      'vehicle.wheelbaseM',
      'boxes.box-tail.widthM',
    ]);
  });
});
