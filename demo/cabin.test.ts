import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { packLowest } from '@torvek/core/pack';
import { libraryBus } from './library-bus';
import { changed } from './rule-cases';

const bus = libraryBus.design;
const of = (name: string, design = bus) =>
  evaluate(design).figures[`cooling.cabin:cabin:${name}` as FigureId]!;
const value = (name: string, design = bus) => of(name, design).value!;
const state = (rule: string, design: Design) =>
  evaluate(design).checks.find((one) => one.rule.id === `cooling.${rule}`)?.state;
const cabin = (change: NonNullable<Design['cabin']>) =>
  changed((draft) => void Object.assign(draft.cabin!, change));
const coldC = bus.cooling?.coldC ?? -10;

describe('the cabin in the coldest night', () => {
  // 60 m³/h of cold air: 1.2 kg/m³ at 20 °C, denser as it is colder.
  const airKgPerS = ((1.2 * 293.15) / (coldC + 273.15)) * (60 / 3600);
  const wPerK = 5.5 * 5.8 + 22 * 1.6 + airKgPerS * 1006;

  test('needs what walls, glass and fresh air carry away, less what two people give', () => {
    expect(value('wPerK')).toBeCloseTo(wPerK, 9);
    expect(value('neededW')).toBeCloseTo(wPerK * (16 - coldC) - 2 * 75, 9);
    // A crowd warms it alone: never below nothing.
    expect(value('neededW', cabin({ people: 80 }))).toBe(0);
  });

  test('its heater, a plain resistance, gives by the square of the lowest voltage', () => {
    const lowestV = evaluate(bus).figures[packLowest]!.value!;
    expect(value('givesW')).toBeCloseTo(5000 * (lowestV / 360) ** 2, 6);
    expect(value('reachesC')).toBeCloseTo(coldC + (value('givesW') + 150) / wPerK, 9);
    // One that keeps its power is taken at that.
    const steady = changed((draft) => void delete draft.devices['device-heater']!.ratedVoltageV);
    expect(value('givesW', steady)).toBe(5000);
  });

  test('the screen is as cold as two films of air and its glass make it', () => {
    const share = 1 / 35 / (1 / 35 + 0.005 + 1 / 50);
    expect(value('screenC')).toBeCloseTo(16 - (16 - coldC) * share, 9);
    expect(value('screenC', cabin({ insideWPerM2K: 15 }))).toBeLessThan(value('screenC') - 4);
    // Where it is not reached, what is reached counts.
    const weak = changed((draft) => void (draft.devices['device-heater']!.ratedPowerW = 1500));
    const insideC = value('reachesC', weak);
    expect(insideC).toBeLessThan(16);
    expect(value('screenC', weak)).toBeCloseTo(insideC - (insideC - coldC) * share, 9);
  });

  test('air mists by the water that comes in and that people breathe out', () => {
    // Nobody in it: the air from outside is saturated at its own temperature.
    expect(value('dewC', cabin({ people: 0 }))).toBeCloseTo(coldC, 6);
    // Magnus: e = 6.112·exp(17.62·T/(243.12 + T)); 0.06 kg/h a person into the dry air of an hour.
    const e = 6.112 * Math.exp((17.62 * coldC) / (243.12 + coldC));
    const water = (0.622 * e) / (1013.25 - e) + (2 * 0.06) / (airKgPerS * 3600);
    const inside = (water * 1013.25) / (0.622 + water);
    const dewC = value('dewC');
    expect(6.112 * Math.exp((17.62 * dewC) / (243.12 + dewC))).toBeCloseTo(inside, 9);
    expect(value('dewC', cabin({ freshM3PerH: 120 }))).toBeLessThan(dewC);
  });

  test('too cold, misted, or said with less: each at its edge', () => {
    expect(['cabin-cold', 'screen-mists', 'cabin-heat-said'].map((rule) => state(rule, bus))).toEqual([
      'clear',
      'clear',
      'clear',
    ]);
    const wanted = value('reachesC');
    expect(state('cabin-cold', cabin({ wantedC: wanted - 0.01 }))).toBe('clear');
    expect(state('cabin-cold', cabin({ wantedC: wanted + 0.1 }))).toBe('raised');
    const people = (count: number) => cabin({ people: count });
    const edge = Array.from({ length: 40 }, (_, i) => i).find(
      (count) => value('dewC', people(count)) > value('screenC', people(count)),
    )!;
    expect(edge).toBeGreaterThan(2);
    expect([state('screen-mists', people(edge - 1)), state('screen-mists', people(edge))]).toEqual([
      'clear',
      'raised',
    ]);
    const said = (share: number) =>
      changed((draft) => void (draft.vehicle.cabinHeatW = value('neededW') * share));
    expect([state('cabin-heat-said', said(0.81)), state('cabin-heat-said', said(0.79))]).toEqual([
      'clear',
      'raised',
    ]);
  });

  test('what is not given is asked, and what cannot be is named', () => {
    const bare = changed((draft) => void (draft.cabin = {}));
    expect(of('neededW', bare).gaps.map((gap) => 'path' in gap && gap.path)).toEqual([
      'cabin.glassM2',
      'cabin.bodyM2',
      'cabin.freshM3PerH',
    ]);
    expect(of('givesW', bare).gaps).toMatchObject([{ path: 'cabin.heater' }]);
    expect(of('neededW', cabin({ freshM3PerH: 0 })).gaps).toMatchObject([
      { kind: 'invalid', path: 'cabin.freshM3PerH' },
    ]);
    expect(of('wPerK', cabin({ glassM2: -1 })).gaps).toMatchObject([{ kind: 'invalid' }]);
    const none = changed((draft) => void delete draft.cabin);
    expect(Object.keys(evaluate(none).figures).filter((id) => id.startsWith('cooling.cabin'))).toEqual([]);
  });

  test('the range of the coldest day goes by it where no heat is typed', () => {
    const untyped = changed((draft) => void delete draft.vehicle.cabinHeatW);
    const typed = changed((draft) => void (draft.vehicle.cabinHeatW = value('neededW')));
    const km = (design: Design) =>
      evaluate(design).figures['vehicle.winter:vehicle:rangeKm' as FigureId]!.value!;
    expect(km(untyped)).toBeCloseTo(km(typed), 9);
    const neither = changed((draft) => {
      delete draft.cabin;
      delete draft.vehicle.cabinHeatW;
    });
    expect(evaluate(neither).figures['vehicle.winter:vehicle:rangeKm' as FigureId]).toMatchObject({
      value: null,
      gaps: [{ path: 'vehicle.cabinHeatW' }],
    });
  });
});
