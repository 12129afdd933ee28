import type { FigureId, FigureName } from '../../../ground/figure';
import { describe, expect, test } from '@jest/globals';
import { evaluate } from '..';
import { checkDesign, type Design } from '../../../model/document';
import { bus350, bus350Three, bus750, van230 } from './library';
import { cart48, truck115 } from './orchard';

/**
 * Six designs that are right, clearly unlike each other, and what an expert computes of them with pencil and paper.
 *
 * Mean open-circuit voltages by trapezoids over the typical tables: LFP 3.2635 V, NMC 3.7245 V, LMO 3.8355 V.
 */
const designs: Record<string, Design> = { cart48, truck115, van230, bus350, bus350Three, bus750 };

/** Resistance of flexible copper at 20 °C, Ω/m: IEC 60228, by hand. */
const perM = { 16: 0.00121, 25: 0.00078, 35: 0.000554, 50: 0.000386, 70: 0.000272, 120: 0.000161 };
/** Time to 95 % of the pack with R in series and the bleed on the bus. */
const riseS = (ohm: number, bleedOhm: number, farad: number) => {
  const k = bleedOhm / (ohm + bleedOhm);
  return -ohm * farad * k * Math.log(1 - 0.95 / k);
};
const rms = (...steps: [seconds: number, amps: number][]) =>
  Math.sqrt(steps.reduce((sum, [s, a]) => sum + s * a * a, 0) / steps.reduce((sum, [s]) => sum + s, 0));
/** 5 % of the pack over pack warm, cable out and back, 2 mΩ of contacts. */
const inrush = (packV: number, packOhm: number, metres: number, ohmPerM: number) =>
  (0.05 * packV) / (0.8 * packOhm + 2 * metres * ohmPerM + 0.002);

const main = 'circuit-main';
const run = (name: FigureName<'precharge.run'>) => `precharge.run:${main}:${name}` as const;
const pack = (name: FigureName<'pack.pack'>) => `pack.pack:pack:${name}` as const;
const largest = `fuse.fault:${main}/largest:prospectiveA` as const;
const smallest = `fuse.fault:${main}/smallest:prospectiveA` as const;
const load = (name: FigureName<'network.load'>, circuit = main) => `network.load:${circuit}:${name}` as const;

/** A string: its cells, its links, its service disconnect, and in the van two cables of 25 mm² with their lugs. */
const cartOhm = 15 * 0.00045 + 0.0008 + 0.00015;
const truckOhm = 36 * 0.0006 + 0.0018 + 0.00015;
const vanOhm = (60 * 0.0016) / 2 + 0.006 + 0.0002 + (2.2 + 2.6) * perM[25] + 2 * 0.0001;
const busOhm = 96 * 0.00075 + 0.004 + 0.00012;
const threeOhm = (96 * 0.0013) / 2 + 0.008 + 0.00012;
const highOhm = 180 * 0.00075 + 0.01 + 0.00018;

/** By design: figure, and what comes out by hand. */
const byHand: Record<string, [id: FigureId, value: number][]> = {
  // 15 LFP cells of 160 Ah, 0.45 mΩ each; links 0.8 mΩ.
  cart48: [
    [pack('voltageMaxV'), 15 * 3.65],
    [pack('voltageMinV'), 15 * 2.5],
    [pack('voltageNominalV'), 15 * 3.2635],
    [pack('capacityAh'), 160],
    [pack('energyKWh'), 15 * 3.2635 * 0.16],
    [pack('resistanceOhm'), cartOhm],
    [pack('sagAtPeakV'), cartOhm * 200],
    // At 40 % a cell rests at 3.28 V.
    [pack('cellVoltageAtPeakV'), 3.28 - 0.00045 * 200],
    [largest, 54.75 / (0.8 * cartOhm)],
    // Bottom of the window at 10 %: 3.19 V a cell; 1.2 m of 50 mm² each way.
    [smallest, (15 * 3.19) / (2.5 * cartOhm + 2.4 * perM[50] + 0.002)],
    [`precharge.bus:bus:capacitanceF`, 0.005],
    [run('finalVoltageV'), (54.75 * 1500) / 1522],
    [run('timeToThresholdS'), riseS(22, 1500, 0.005)],
    [run('inrushA'), inrush(54.75, cartOhm, 1.2, perM[50])],
    // Below 60 V there is nothing to wait for.
    ['precharge.discharge:bus:timeToSafeS', 0],
    ['precharge.discharge:bus:bleedPowerAtVoltageW', 54.75 ** 2 / 1500],
    [load('rmsA'), rms([20, 180], [100, 60], [60, 0])],
    ['vehicle.axles:vehicle:totalKg', 560 - 70 + 35 + 15 * 2.9 + 18],
    // (15 · 2.9 + 18) kg at 20 g.
    ['pack.box:box-bed:anchorForceN', 61.5 * 9.80665 * 20],
    ['bonding.body:box-bed:pathOhm', 0.3 * perM[16] + 0.001],
  ],
  // Nine modules of four LFP cells, 100 Ah, 0.6 mΩ a cell; links 1.8 mΩ.
  truck115: [
    [pack('voltageMaxV'), 36 * 3.65],
    [pack('resistanceOhm'), truckOhm],
    [pack('voltageNominalV'), 36 * 3.2635],
    [pack('shortCircuitCurrentA'), 131.4 / truckOhm],
    [largest, 131.4 / (0.8 * truckOhm)],
    [smallest, (36 * 3.19) / (2.5 * truckOhm + 4 * perM[35] + 0.002)],
    ['precharge.bus:bus:capacitanceF', 0.0042],
    [run('timeConstantS'), (47 * 0.0042 * 1200) / 1247],
    [run('timeToThresholdS'), riseS(47, 1200, 0.0042)],
    [run('busShortedEnergyJ'), (131.4 ** 2 / 47) * 3],
    [run('inrushA'), inrush(131.4, truckOhm, 2, perM[35])],
    ['precharge.discharge:bus:timeToSafeS', 1200 * 0.0042 * Math.log(131.4 / 60)],
    [load('rmsA'), rms([15, 160], [120, 60], [30, 30], [60, 30])],
    [load('peakA'), 160],
    // A plain heater of 600 W at 120 V, at 36 · 3.19 V.
    ['pack.heater:device-heater:powerAtLowW', 600 * ((36 * 3.19) / 120) ** 2],
    ['pack.heater:device-heater:powerAtMaxW', 600 * (131.4 / 120) ** 2],
    ['conductor.loop:circuit-heater:loopOhm', 3 * 0.00495 + 0.002],
  ],
  // Thirty modules of 2s2p, 33 Ah and 1.6 mΩ a cell; links 6 mΩ.
  van230: [
    [pack('voltageMaxV'), 60 * 4.2],
    [pack('voltageNominalV'), 60 * 3.8355],
    [pack('capacityAh'), 66],
    [pack('resistanceOhm'), vanOhm],
    ['pack.source:pack:stringOhm', vanOhm],
    ['pack.lead:lead-boxes:ohm', 2.2 * perM[25] + 0.0001],
    // 10 % of LMO: 3.6 V a cell.
    ['pack.source:pack:voltageAtLowV', 216],
    [largest, 252 / (0.8 * vanOhm)],
    [smallest, 216 / (2.5 * vanOhm + 7 * perM[25] + 0.002)],
    [run('timeToThresholdS'), riseS(82, 2500, 0.0012)],
    [run('peakPowerW'), 252 ** 2 / 82],
    [run('inrushA'), inrush(252, vanOhm, 3.5, perM[25])],
    ['precharge.discharge:bus:timeToSafeS', 2500 * 0.0012 * Math.log(252 / 60)],
    [load('rmsA'), rms([30, 110], [120, 50], [60, 20])],
    // 30 modules, two posts each; four lugs at each of two cables.
    ['joints.all:all:count', 60 + 8],
  ],
  // Two strings of eight modules of 12 cells, 117 Ah, 0.75 mΩ a cell; links of a string 4 mΩ.
  bus350: [
    [pack('voltageMaxV'), 403.2],
    [pack('voltageNominalV'), 96 * 3.7245],
    [pack('capacityAh'), 234],
    ['pack.source:pack:stringOhm', busOhm],
    [pack('resistanceOhm'), busOhm / 2],
    ['pack.source:pack:linksOhm', (0.004 + 0.00012) / 2],
    ['pack.temperature:pack:coldOhm', 2.5 * (busOhm / 2)],
    [largest, 403.2 / (0.8 * (busOhm / 2))],
    [smallest, (96 * 3.44) / (2.5 * (busOhm / 2) + 12 * perM[70] + 0.002)],
    // The one other string into a fault in one.
    ['fuse.strings:pack:faultA', 403.2 / (0.8 * busOhm)],
    [run('timeToThresholdS'), riseS(82, 2000, 0.00126)],
    [run('inrushA'), inrush(403.2, busOhm / 2, 6, perM[70])],
    [load('rmsA'), rms([12, 400], [60, 140], [90, 60], [20, 80])],
    ['joints.current:string-1:peakA', 200],
  ],
  // Three strings of twelve modules of 8s2p, 62 Ah and 1.3 mΩ a cell; links of a string 8 mΩ.
  bus350Three: [
    [pack('voltageMaxV'), 403.2],
    [pack('capacityAh'), 3 * 124],
    ['pack.source:pack:stringOhm', threeOhm],
    [pack('resistanceOhm'), threeOhm / 3],
    [largest, (403.2 * 3) / (0.8 * threeOhm)],
    // Two others into a fault in one.
    ['fuse.strings:pack:faultA', (2 * 403.2) / (0.8 * threeOhm)],
    [run('timeToThresholdS'), riseS(47, 1200, 0.002)],
    [run('inrushA'), inrush(403.2, threeOhm / 3, 6, perM[120])],
    ['precharge.discharge:bus:timeToSafeS', 1200 * 0.002 * Math.log(403.2 / 60)],
    [load('rmsA'), rms([20, 600], [120, 220], [60, 100])],
    ['joints.current:string-2:rmsA', rms([20, 600], [120, 220], [60, 100]) / 3],
    ['pack.box:box-a:anchorForceN', (40 + 9 * 24.2) * 9.80665 * 20],
  ],
  // Fifteen modules of 12 cells in one string; links 10 mΩ.
  bus750: [
    [pack('voltageMaxV'), 756],
    [pack('voltageMinV'), 540],
    [pack('resistanceOhm'), highOhm],
    [largest, 756 / (0.8 * highOhm)],
    [smallest, (180 * 3.44) / (2.5 * highOhm + 10 * perM[50] + 0.002)],
    [run('timeToThresholdS'), riseS(82, 3000, 0.0006)],
    [run('busShortedEnergyJ'), (756 ** 2 / 82) * 0.8],
    [run('inrushA'), inrush(756, highOhm, 5, perM[50])],
    ['precharge.discharge:bus:timeToSafeS', 3000 * 0.0006 * Math.log(756 / 60)],
    // Between 630 V (6.3 mm) and 800 V (8 mm), IEC 60664-1: pollution 2, group III.
    ['distances.box:box-a:creepageMm', 6.3 + ((756 - 630) / 170) * 1.7],
    ['distances.box:box-a:clearanceMm', 1.5],
    // A coil of 12 V and 4.2 A that pulls in at 7.2 V: at 60 °C.
    [`contactor.coil:${main}:pullInV`, 7.2 * (1 + 0.00393 * 40)],
    [load('peakA'), 240],
  ],
};

describe.each(Object.entries(designs))('%s', (name, design) => {
  const { figures, checks } = evaluate(design);

  test('is a design, and raises no Stop and no Mend', () => {
    expect(checkDesign(design).ok).toBe(true);
    const raised = checks.flatMap((check) =>
      check.state === 'raised' && check.grade !== 'note' ? [`${check.key}: ${check.message}`] : [],
    );
    expect(raised).toEqual([]);
  });

  test('leaves nothing unchecked but how its cells are brought level', () => {
    const open = checks.filter(
      ({ state, rule }) => state === 'not-checked' && !rule.id.startsWith('balance'),
    );
    expect(open.map(({ key }) => key)).toEqual([]);
  });

  test.each(byHand[name]!)('%s as computed by hand', (id, value) => {
    const found = figures[id]?.value;
    expect(found).not.toBeUndefined();
    // The tables’ means are rounded to four places.
    expect(Math.abs(found! - value)).toBeLessThanOrEqual(2e-5 * Math.abs(value) + 1e-12);
  });
});

test('at least sixty figures are compared', () => {
  expect(Object.values(byHand).flat().length).toBeGreaterThanOrEqual(60);
  expect(Object.keys(byHand)).toEqual(Object.keys(designs));
});

test('the designs are clearly unlike each other', () => {
  const shape = ({ strings, boxes, modules, circuits }: Design) =>
    [strings, boxes, modules, circuits].map((map) => Object.keys(map).length).join();
  expect(new Set(Object.values(designs).map(shape)).size).toBe(6);
});
