import { describe, expect, test } from '@jest/globals';
import { cable } from '../../trade/conductor';
import { checkDesign, blankDesign } from '../document';
import { fuse } from '../../trade/fuse';
import { pack } from '../../trade/pack';
import { prechargeChoose } from '../../trade/precharge';
import { cableAreasMm2, catalogue, catalogueOf, partKey } from '.';

describe('the starter catalogue', () => {
  test('has what a first job needs', () => {
    expect(catalogueOf('module')).toHaveLength(6);
    expect(new Set(catalogueOf('module').map(({ data }) => data.chemistry))).toEqual(
      new Set(['NMC', 'LFP', 'LMO']),
    );
    expect(catalogueOf('contactor')).toHaveLength(12);
    expect(catalogueOf('fuse').length).toBeGreaterThanOrEqual(30);
    expect(catalogueOf('resistor')).toHaveLength(23);
    const classes = new Set(catalogueOf('cable').map(({ data }) => data.conductorMaxC));
    expect([...classes]).toEqual([125, 105, 180]);
    for (const limit of classes)
      expect(
        catalogueOf('cable').flatMap(({ data }) => (data.conductorMaxC === limit ? [data.areaMm2] : [])),
      ).toEqual(cableAreasMm2);
  });

  test('keys are unique and can stand in a path', () => {
    const keys = catalogue.map(partKey);
    expect(new Set(keys).size).toBe(keys.length);
    for (const key of keys) expect(key).toMatch(/^[a-z0-9-]+@1$/);
  });

  test('every part passes as part of a design', () => {
    const parts = Object.fromEntries(catalogue.map((part) => [partKey(part), part]));
    expect(checkDesign({ ...blankDesign(), parts })).toMatchObject({ ok: true });
  });

  test('every part’s data passes the door of the calculator that takes it', () => {
    for (const { data } of catalogueOf('module')) {
      const { cell, cellsInSeries, cellsInParallel } = data;
      expect(
        pack.parse({
          cell,
          series: cellsInSeries,
          parallel: cellsInParallel,
          socWindow: [0.1, 0.9],
          peakCurrentA: data.peakA,
        }).ok,
      ).toBe(true);
    }
    for (const { data } of catalogueOf('fuse')) {
      expect(
        fuse.parse({
          ...data,
          busVoltageV: 100,
          faultMinA: 1000,
          faultMaxA: 5000,
          maxClearS: 5,
          loadProfile: [[1, 1]],
        }).ok,
      ).toBe(true);
    }
    for (const { massKgPerM: _mass, ...data } of catalogueOf('cable').map((part) => part.data)) {
      expect(
        cable.parse({ ...data, ambientC: 40, lengthM: 1, currentA: 1, install: 'free-air', busVoltageV: 100 })
          .ok,
      ).toBe(true);
    }
    const resistors = catalogueOf('resistor').map((part) => ({ partId: partKey(part), ...part.data }));
    expect(
      prechargeChoose.parse({
        packVoltageV: 400,
        busCapacitanceF: 0.001,
        wantedTimeS: 0.3,
        timeoutS: 3,
        resistors,
      }).ok,
    ).toBe(true);
  });
});

describe('plausibility', () => {
  test('a cell’s table stays within its limits and its module below what it can hold', () => {
    for (const { label, data } of catalogueOf('module')) {
      const voltages = data.cell.ocvTable.map(([, voltageV]) => voltageV);
      expect([
        label,
        Math.max(...voltages) <= data.cell.maxV,
        Math.min(...voltages) >= data.cell.minV - 0.001,
      ]).toEqual([label, true, true]);
      const kWh = (data.cell.capacityAh * data.cellsInSeries * data.cellsInParallel * 3.5) / 1000;
      const whPerKg = (kWh * 1000) / data.massKg;
      expect([label, whPerKg > 90 && whPerKg < 260]).toEqual([label, true]);
      expect([label, data.peakA > data.continuousA]).toEqual([label, true]);
    }
  });
  test.each([105, 125, 180])('of %s °C, thicker cables are thicker, heavier and carry more', (limit) => {
    const cables = catalogueOf('cable').flatMap(({ data }) => (data.conductorMaxC === limit ? [data] : []));
    const ampacities = cables.map(({ massKgPerM: _mass, ...data }) => {
      const parsed = cable.parse({
        ...data,
        ambientC: 40,
        lengthM: 1,
        currentA: 0,
        install: 'free-air',
        busVoltageV: 100,
      });
      return parsed.ok ? cable.calculate(parsed.input).result.ampacityA : 0;
    });
    const rising = (values: number[]) => values.every((value, i) => i === 0 || value > values[i - 1]!);
    expect(rising(cables.map(({ outerDiameterMm }) => outerDiameterMm))).toBe(true);
    expect(rising(cables.map(({ massKgPerM }) => massKgPerM))).toBe(true);
    expect(rising(ampacities)).toBe(true);
    // Copper alone, at 8.96 g/cm³, weighs less than the cable.
    for (const { areaMm2, massKgPerM } of cables) expect(massKgPerM).toBeGreaterThan(areaMm2 * 8.96e-3);
  });
  test('k of the cables is that of copper from their limit to what the insulation stands once', () => {
    const endC: Record<number, number> = { 105: 250, 125: 250, 180: 350 };
    for (const { data } of catalogueOf('cable')) {
      const k = 226 * Math.sqrt(Math.log((234.5 + endC[data.conductorMaxC]!) / (234.5 + data.conductorMaxC)));
      expect(Math.abs(data.adiabaticK - k)).toBeLessThan(0.6);
    }
  });
  test('contacts carry for ever what they are rated for, and larger ones never less', () => {
    for (const { label, data } of catalogueOf('contactor')) {
      expect([label, data.shortTime![0]![0] > data.continuousA]).toEqual([label, true]);
      expect([label, data.breakA > data.continuousA && data.makeA > data.continuousA]).toEqual([label, true]);
    }
  });
  test('a fuse does not melt at its rating and breaks more than its curve reaches', () => {
    for (const { label, data } of catalogueOf('fuse')) {
      expect([label, data.curve[0]![0] > data.ratedA * 1.3]).toEqual([label, true]);
      expect([label, data.minBreakingA === 0 || data.minBreakingA > data.curve[0]![0]]).toEqual([
        label,
        true,
      ]);
    }
  });
});
