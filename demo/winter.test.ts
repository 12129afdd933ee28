import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';

const bus = libraryBus.design;
const figure = (design: Design, id: string) => evaluate(design).figures[id as FigureId]!;
const winter = (design: Design, name: 'rangeKm' | 'whPerKm') =>
  figure(design, `vehicle.winter:vehicle:${name}`);
const boxes = ['box-nose', 'box-left', 'box-tail'];

describe('range on the coldest day', () => {
  test('what is left once the pack is warm, over denser air, accessories and the cabin', () => {
    const warmKWh = boxes.reduce((sum, id) => sum + figure(bus, `cooling.box:${id}:energyKWh`).value!, 0);
    expect(warmKWh).toBeGreaterThan(0.5);
    const massKg = figure(bus, 'vehicle.axles:vehicle:totalKg').value!;
    const speed = 60 / 3.6;
    const airKgM3 = (1.2 * 293.15) / (273.15 - 12);
    const forceN = massKg * 9.80665 * 0.0095 + 0.5 * airKgM3 * 4.6 * speed ** 2;
    const whPerKm = ((forceN * speed) / 0.86 + 1500 + 3600) / 60;
    expect(winter(bus, 'whPerKm').value).toBeCloseTo(whPerKm, 6);
    const usableKWh = figure(bus, 'pack.pack:pack:usableEnergyKWh').value!;
    expect(winter(bus, 'rangeKm').value).toBeCloseTo((1000 * (usableKWh - warmKWh)) / whPerKm, 6);
  });

  test('what another source warms is not taken out of the pack, and neither is a box without a heater', () => {
    const truck = orchardTruck.design;
    const own = (recipe: (draft: Design) => void) => {
      const draft = JSON.parse(JSON.stringify(truck)) as Design;
      recipe(draft);
      return winter(draft, 'rangeKm').value!;
    };
    const usableKWh = figure(truck, 'pack.pack:pack:usableEnergyKWh').value!;
    const all = (1000 * usableKWh) / winter(truck, 'whPerKm').value!;
    const fromPack = winter(truck, 'rangeKm').value!;
    const energyKWh = figure(truck, 'cooling.box:box-seat:energyKWh').value!;
    expect(all - fromPack).toBeCloseTo((1000 * energyKWh) / winter(truck, 'whPerKm').value!, 6);
    expect(own((draft) => void (draft.boxes['box-seat']!.heaterVoltage = 'mains'))).toBeCloseTo(all, 6);
    // Lighter by nothing: a mat is in the mass of its box.
    expect(own((draft) => void delete draft.boxes['box-seat']!.heater)).toBeCloseTo(all, 6);
  });

  test('without the cabin nothing is guessed; air that is typed is taken as it is', () => {
    const unsaid = changed((draft) => {
      delete draft.vehicle.cabinHeatW;
      delete draft.cabin;
    });
    expect(winter(unsaid, 'rangeKm')).toMatchObject({
      value: null,
      gaps: [{ kind: 'not-given', path: 'vehicle.cabinHeatW' }],
    });
    const negative = changed((draft) => void (draft.vehicle.cabinHeatW = -1));
    expect(winter(negative, 'rangeKm')).toMatchObject({ value: null, gaps: [{ kind: 'invalid' }] });
    const thin = changed((draft) => void (draft.vehicle.airDensityKgM3 = 1.2));
    expect(winter(thin, 'whPerKm').value!).toBeLessThan(winter(bus, 'whPerKm').value!);
    expect(
      winter(thin, 'whPerKm').value! - figure(thin, 'vehicle.range:road-load:whPerKm').value!,
    ).toBeCloseTo(60, 6);
  });

  test('short in winter alone is a note; what is short on any day is said as that', () => {
    const raised = (wantedRangeKm: number) =>
      evaluate(changed((draft) => void (draft.vehicle.wantedRangeKm = wantedRangeKm))).checks.flatMap(
        (check) =>
          check.state === 'raised' && check.rule.id.startsWith('vehicle.range') ? [check.rule.id] : [],
      );
    const [summerKm, winterKm] = [
      figure(bus, 'vehicle.range:road-load:rangeKm').value!,
      winter(bus, 'rangeKm').value!,
    ];
    expect(raised(Math.floor(winterKm))).toEqual([]);
    expect(raised(Math.ceil(winterKm))).toEqual(['vehicle.range-winter']);
    expect(raised(Math.floor(summerKm))).toEqual(['vehicle.range-winter']);
    expect(raised(Math.ceil(summerKm))).toEqual(['vehicle.range-short']);
  });
});
