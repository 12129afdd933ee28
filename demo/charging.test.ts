import { describe, expect, test } from '@jest/globals';
import {
  builtCharger,
  ladderItems,
  type LadderAnswer,
  type StationAnswer,
  type SupplyAnswer,
} from '@torvek/core/charging';
import { judgeMeasurement, procedureFor, standInReading } from '@torvek/core/commissioning';
import { evaluate } from '@torvek/core/design';
import { removeDevice, type Design } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { packLayout } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { pin } from '@torvek/core/pack';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';

const bus = libraryBus.design;
const evaluated = evaluate(bus);
const value = (design: Design, id: string): number | null =>
  (design === bus ? evaluated : evaluate(design)).figures[id as FigureId]?.value ?? null;
const supplyAnswer = (design: Design, id: string) =>
  (design === bus ? evaluated : evaluate(design)).runs[`charge.supply:${id}`]!.result as SupplyAnswer;
const raised = (design: Design, rule: string) =>
  evaluate(design).checks.filter((check) => check.state === 'raised' && check.rule.id === rule);
const depot = 'charge.supply:supply-depot';

describe('from the mains', () => {
  test('three phases of 16 A through 93.9 % are 10.4 kW; nothing in the neutral', () => {
    expect(value(bus, `${depot}:inputW`)).toBeCloseTo(3 * 230 * 16, 9);
    expect(value(bus, `${depot}:outputW`)).toBeCloseTo(3 * 230 * 16 * 0.939, 6);
    expect(value(bus, `${depot}:neutralA`)).toBeCloseTo(0, 9);
    expect(value(bus, `${depot}:offeredA`)).toBe(31);
    expect(value(bus, `${depot}:cRate`)).toBeCloseTo(31 / 234, 9);
  });

  test('at a single phase the same charger works at a fifth of its load, with the efficiency of that', () => {
    const { input, result } = supplyAnswer(bus, 'supply-hall');
    expect([input.phases, result.availableA, result.neutralA]).toEqual([1, 10, 10]);
    const share = result.outputW / (3 * 230 * 16 * 0.939);
    const efficiency = 0.875 + ((share - 0.1) / 0.15) * (0.923 - 0.875);
    expect(result.outputW).toBeCloseTo(2300 * efficiency, 3);
  });

  test('the narrowest link governs: wires before pilot and cable', () => {
    expect(supplyAnswer(bus, 'supply-workshop').result).toMatchObject({ availableA: 20, limitedBy: 'wire' });
    const small = changed((draft) => void (draft.supplies!['supply-depot']!.cableOhm = 1500));
    expect(supplyAnswer(small, 'supply-depot').result).toMatchObject({ availableA: 13, limitedBy: 'cable' });
    const pins = changed((draft) => void (draft.inlets!['inlet-side']!.ratedA = 12));
    expect(supplyAnswer(pins, 'supply-depot').result).toMatchObject({ availableA: 12, limitedBy: 'wire' });
    const odd = changed((draft) => void (draft.supplies!['supply-depot']!.cableOhm = 400));
    expect(value(odd, `${depot}:outputW`)).toBeNull();
    expect(evaluate(odd).figures[`${depot}:outputW` as FigureId]!.gaps).toMatchObject([
      { kind: 'invalid', path: 'supplies.supply-depot.cableOhm' },
    ]);
  });

  test('a smaller breaker and other loads beside the charger make it longer, and are found', () => {
    const before = value(bus, `${depot}:minutes`)!;
    const loaded = changed((draft) => void (draft.supplies!['supply-depot']!.otherA = 6));
    expect(supplyAnswer(loaded, 'supply-depot').result).toMatchObject({ limitedBy: 'breaker' });
    expect(supplyAnswer(loaded, 'supply-depot').result.availableA).toBeCloseTo(0.8 * 20 - 6, 9);
    expect(value(loaded, `${depot}:minutes`)!).toBeGreaterThan(1.4 * before);
    const found = raised(loaded, 'charge.breaker-trips');
    expect(found.map(({ subjects }) => subjects)).toEqual([['supply-depot']]);
    expect(found[0]!.state === 'raised' && found[0]!.values.map((one) => one.value)).toEqual([16, 6, 20, 16]);
    // On one phase alone it holds back a charger of three as much, and the finding tells of that phase.
    const uneven = changed((draft) =>
      Object.assign(draft.supplies!['supply-depot']!, { otherA: 1, other2A: 5 }),
    );
    expect(supplyAnswer(uneven, 'supply-depot').result.availableA).toBeCloseTo(0.8 * 20 - 6, 9);
    expect(value(uneven, `${depot}:minutes`)!).toBe(value(loaded, `${depot}:minutes`)!);
    const there = raised(uneven, 'charge.breaker-trips')[0]!;
    expect(there.state === 'raised' && there.values.map((one) => one.value)).toEqual([16, 6, 20, 16]);
    const full = changed((draft) => void (draft.supplies!['supply-depot']!.other3A = 16));
    expect(evaluate(full).figures[`${depot}:minutes` as FigureId]!.gaps).toMatchObject([
      { kind: 'invalid', path: 'supplies.supply-depot.other3A' },
    ]);
    const none = changed((draft) => void (draft.supplies!['supply-depot']!.otherA = 16));
    expect(evaluate(none).figures[`${depot}:minutes` as FigureId]!.gaps).toMatchObject([
      { kind: 'invalid', path: 'supplies.supply-depot.otherA' },
    ]);
  });

  test('time and energy as a charge that is summed up in small steps', () => {
    const { layout } = packLayout(bus);
    const { cell } = layout!.part.data;
    const ohm = value(bus, 'pack.pack:pack:resistanceOhm')!;
    const ocv = (soc: number) => {
      const i = cell.ocvTable.findIndex(([at]) => at >= soc);
      const [[a, u], [b, v]] = [cell.ocvTable[i - 1]!, cell.ocvTable[i]!];
      return layout!.seriesCells * (u + ((soc - a) / (b - a)) * (v - u));
    };
    let [soc, hours, joules] = [0.1, 0, 0];
    const power = 3 * 230 * 16 * 0.939;
    while (soc < 0.9) {
      const open = ocv(soc + 1e-12);
      const byPower = (-open + Math.sqrt(open * open + 4 * ohm * power)) / (2 * ohm);
      const amps = Math.min(31, byPower, (396 - open) / ohm);
      const step = Math.min(1 / 400, ((0.9 - soc) * 234) / amps + 1e-12);
      joules += amps * (open + amps * ohm) * step * 3600;
      soc += (amps * step) / 234;
      hours += step;
    }
    expect(value(bus, `${depot}:minutes`)!).toBeCloseTo(hours * 60, 0);
    expect(value(bus, `${depot}:energyToPackKWh`)!).toBeCloseTo(joules / 3.6e6, 1);
    const { curve, result } = supplyAnswer(bus, 'supply-depot');
    expect(curve!.energyToPackKWh).toBeCloseTo(curve!.energyStoredKWh + curve!.lossKWh, 6);
    expect(value(bus, `${depot}:energyMainsKWh`)!).toBeCloseTo(
      (curve!.energyToPackKWh * result.inputW) / result.outputW,
      9,
    );
  });

  test('two chargers on one phase: the neutral carries both, the others nothing', () => {
    const two = changed((draft) => {
      const key = pin(
        draft,
        catalogueOf('charger').find(({ id }) => id === 'thornwick-c3-350')!,
      );
      for (const id of ['device-charger', 'device-second'])
        draft.devices[id] = { ...draft.devices['device-charger']!, tag: id, charger: key, phase: 2 };
      delete draft.devices['device-charger']!.maxOutputA;
      delete draft.devices['device-second']!.maxOutputA;
    });
    const { result } = supplyAnswer(two, 'supply-workshop');
    // Each may give 12 A into the pack.
    const each = (12 * evaluate(two).figures['pack.pack:pack:voltageNominalV']!.value!) / (230 * 0.929);
    expect(result.phaseA.map((one) => one > 0)).toEqual([false, true, false]);
    expect(result.phaseA[1]).toBeLessThanOrEqual(20 + 1e-9);
    expect(result.neutralA).toBeCloseTo(result.phaseA[1], 9);
    expect(2 * each).toBeGreaterThan(20);
    // A single phase is the first one.
    expect(raised(two, 'charge.no-one-phase').map(({ subjects }) => subjects[0])).toEqual(['supply-hall']);
  });

  test('what is typed at the device overrides its part', () => {
    const own = changed((draft) =>
      Object.assign(draft.devices['device-charger']!, { maxInputA: 10, efficiencyFraction: 0.9 }),
    );
    expect(value(own, `${depot}:outputW`)).toBeCloseTo(3 * 230 * 10 * 0.9, 6);
    expect(builtCharger('device-charger', own).charger).toMatchObject({ maxInputA: 10, onePhaseA: 10 });
  });

  test('a device of type A suits only chargers that see 6 mA of DC themselves', () => {
    const typeA = changed((draft) => void (draft.supplies!['supply-depot']!.residual = 'A'));
    expect(raised(typeA, 'charge.residual')).toEqual([]);
    const blind = changed((draft) => {
      draft.supplies!['supply-depot']!.residual = 'A';
      const part = draft.parts['thornwick-c11-350@1'];
      if (part?.kind === 'charger') part.data.dcDetection = false;
    });
    expect(raised(blind, 'charge.residual').map(({ subjects }) => subjects)).toEqual([['supply-depot']]);
  });
});

describe('from a station, and in the cold', () => {
  test('the least of station, inlet, contactors, cable, cells and what is said governs', () => {
    const { limits, result } = evaluated.runs['charge.station:supply-yard']!.result as StationAnswer;
    expect(limits.map(({ what }) => what)).toEqual([
      'station',
      'inlet',
      'contactors',
      'cable',
      'cells',
      'vehicle’s own limit',
    ]);
    expect(limits.find(({ what }) => what === 'cells')!.currentA).toBe(2 * 117);
    expect(limits.find(({ what }) => what === 'cable')!.currentA).toBe(
      value(bus, 'conductor.cable:circuit-inlet:ampacityA'),
    );
    expect(value(bus, 'charge.station:supply-yard:limitA')).toBe(120);
    expect(result.maxPowerKW).toBeCloseTo((403.2 * 120) / 1000, 9);
    const weak = changed((draft) => void (draft.supplies!['supply-yard']!.maxA = 60));
    expect(value(weak, 'charge.station:supply-yard:limitA')).toBe(60);
    expect(value(weak, 'charge.station:supply-yard:minutes')!).toBeGreaterThan(
      1.5 * value(bus, 'charge.station:supply-yard:minutes')!,
    );
  });

  test('in the cold it is warmed first, as long as the slowest box takes, then held to what cells take', () => {
    const warm = ['box-nose', 'box-left', 'box-tail'].map((box) => value(bus, `cooling.box:${box}:warmS`)!);
    expect(value(bus, 'charge.winter:supply-yard:warmMinutes')).toBeCloseTo(Math.max(...warm) / 60, 9);
    // Charged from 2 °C: between 14 A at 0 and 35 A at 5 °C, in two strings.
    expect(value(bus, 'charge.winter:supply-yard:takesA')).toBeCloseTo(2 * (14 + (2 / 5) * 21), 9);
    // Warmed first, then charged: in a night that needs no warming it takes just that less.
    const just = changed((draft) => void (draft.cooling!.coldC = draft.cooling!.cellChargeMinC!));
    expect(value(just, 'charge.winter:supply-yard:warmMinutes')).toBe(0);
    expect(value(bus, 'charge.winter:supply-yard:minutes')).toBeCloseTo(
      value(just, 'charge.winter:supply-yard:minutes')! +
        value(bus, 'charge.winter:supply-yard:warmMinutes')!,
      6,
    );
    expect(value(bus, 'charge.winter:supply-yard:minutes')!).toBeGreaterThan(
      value(bus, 'charge.station:supply-yard:minutes')! * 2,
    );
    const mild = changed((draft) => void (draft.cooling!.coldC = 10));
    expect(value(mild, 'charge.winter:supply-yard:warmMinutes')).toBe(0);
    expect(value(mild, 'charge.winter:supply-yard:takesA')).toBeCloseTo(2 * (35 + 0.5 * 45), 9);
    const frozen = changed((draft) => void (draft.cooling!.cellChargeMinC = -10));
    expect(value(frozen, 'charge.winter:supply-yard:minutes')).toBeNull();
  });

  test('heaters share what a supply gives; one on the mains has none at a station', () => {
    // The village hall gives 2087 W to heaters of 3000 W.
    const givenW = 2087.077433259565;
    const boxes = ['box-nose', 'box-left', 'box-tail'].map((box) => {
      const [timeS, fullW, ua] = (['warmS', 'heaterW', 'uaWPerK'] as const).map((name) =>
        value(bus, `cooling.box:${box}:${name}`)!,
      ) as [number, number, number];
      const lossW = ua * 14;
      const getsW = (fullW * givenW) / 3000;
      return (timeS * Math.log(1 - lossW / getsW)) / Math.log(1 - lossW / fullW) / 60;
    });
    expect(value(bus, 'charge.winter:supply-hall:warmMinutes')).toBeCloseTo(Math.max(...boxes), 6);
    const truck = orchardTruck.design;
    const said = (draft: Design) =>
      evaluate(draft).checks.flatMap((check) =>
        check.rule.id === 'charge.warm-supply' && check.state === 'raised' ? [check.message] : [],
      );
    const atStation = JSON.parse(JSON.stringify(truck)) as Design;
    atStation.boxes['box-seat']!.heaterW = 150;
    atStation.boxes['box-seat']!.heaterVoltage = 'mains';
    expect(said(atStation)).toEqual([]);
    atStation.supplies!['supply-barn'] = {
      tag: 'Barn',
      kind: 'station',
      minV: 50,
      maxV: 500,
      maxA: 50,
      maxW: 5000,
    };
    atStation.inlets!['inlet-dc'] = { tag: 'DC inlet', current: 'station' };
    expect(said(atStation)).toEqual([
      'The heater of Box under the seat is fed by the mains, and Barn brings none: in the coldest night, -8 °C, it stays too cold to charge there.',
    ]);
  });

  test('cooling goes by the same charge, of the supply that heats the most', () => {
    expect(value(bus, 'cooling.charge:home:packHeatW')).toBe(value(bus, `${depot}:heatW`));
    expect(value(bus, 'cooling.charge:fast:minutes')).toBe(value(bus, 'charge.station:supply-yard:minutes'));
    const typed = changed((draft) => void (draft.cooling!.fastChargeW = 20_000));
    expect(value(typed, 'cooling.charge:fast:packHeatW')!).toBeLessThan(
      value(bus, 'cooling.charge:fast:packHeatW')! / 2,
    );
  });

  test('branches of charger, inlet and converter carry what charging and low voltage give', () => {
    expect(value(bus, 'charge.branch:circuit-charger:currentA')).toBe(31);
    expect(value(bus, 'charge.branch:circuit-inlet:currentA')).toBe(120);
    const strong = changed((draft) => {
      delete draft.devices['device-charger']!.maxOutputA;
      draft.supplies!['supply-workshop']!.phaseVoltageV = 240;
    });
    expect(value(strong, 'charge.branch:circuit-charger:currentA')).toBeCloseTo(
      (3 * 240 * 16 * 0.939) / value(strong, 'pack.source:pack:voltageAtLowV')!,
      6,
    );
    const lowV = value(bus, 'pack.source:pack:voltageAtLowV')!;
    expect(value(bus, 'charge.branch:circuit-dcdc:currentA')).toBeCloseTo((70 * 27.6) / (0.93 * lowV), 9);
  });
});

describe('the ladder', () => {
  const answer = (design: Design) => evaluate(design).runs['charge.ladder:vehicle']!.result as LadderAnswer;

  test('is gathered from cells, cut, monitor, charger and inverter, by the cell', () => {
    const items = ladderItems(bus, packLayout(bus).layout!);
    expect(Object.fromEntries(items.map(({ path, perCellV }) => [path, perCellV]))).toEqual({
      'parts.brackwater-m12@1.data.cell.maxV': 4.2,
      'cuts.cut-mains.voltageV': 4.19,
      'limits.cutHighV': 4.18,
      'limits.warnHighV': 4.15,
      'devices.device-charger.endV': 396 / 96,
      'limits.balanceFromV': 4.08,
      'devices.device-inverter.regenMaxV': 394 / 96,
      'devices.device-inverter.derateBelowV': 316 / 96,
      'devices.device-inverter.cutBelowV': 304 / 96,
      'limits.warnLowV': 3.12,
      'limits.cutLowV': 3.05,
      'parts.brackwater-m12@1.data.cell.minV': 3,
    });
    expect(answer(bus).result.violations).toEqual([]);
  });

  test('its order does not depend on the order of entry', () => {
    const other = changed((draft) => {
      draft.devices = Object.fromEntries(Object.entries(draft.devices).reverse());
      const { cutHighV, warnHighV, ...rest } = draft.limits!;
      draft.limits = { ...rest, warnHighV: warnHighV!, cutHighV: cutHighV! };
    });
    expect(answer(other).result).toEqual(answer(bus).result);
  });

  test('the truck’s charger ends above where its monitor warns: one pair, 20 mV the wrong way', () => {
    const { violations } = answer(orchardTruck.design).result;
    expect(violations).toHaveLength(1);
    expect(violations[0]).toMatchObject({
      upper: 'limits.warnHighV',
      lower: 'devices.device-charger.endV',
      neededMv: 10,
    });
    expect(violations[0]!.gapMv).toBeCloseTo(-20, 6);
    expect(value(orchardTruck.design, 'charge.ladder:vehicle:shortfallMv')).toBeCloseTo(30, 6);
    expect(value(bus, 'charge.ladder:vehicle:shortfallMv')).toBe(0);
  });

  test('a further threshold stands in it, and a wider margin finds what was near', () => {
    const one = changed((draft) => {
      draft.thresholds = {
        'threshold-1': { tag: 'Dash', role: 'bms-warn-high', level: 'pack', voltageV: 396.4 },
      };
    });
    // 4.129 V by the cell, 4 mV above the charger’s end.
    expect(answer(one).result.violations.map(({ upper }) => upper)).toEqual([
      'thresholds.threshold-1.voltageV',
    ]);
    const wide = changed((draft) => void (draft.charging = { marginMv: 40 }));
    expect(answer(wide).result.violations.length).toBeGreaterThan(2);
  });
});

describe('the gate of charging', () => {
  const steps = procedureFor(bus, evaluated).filter(({ gate }) => gate === 'charging');

  test('tries the inlet, each supply, each limit, the charger’s end and each way that stops it', () => {
    expect(steps.map(({ id }) => id).filter((id) => !id.startsWith('load-drop'))).toEqual([
      'inlet-earth:inlet-side',
      'inlet-release:inlet-side',
      'inlet-inhibit:inlet-side',
      'inlet-weld:inlet-side',
      'charge-current:supply-depot',
      'charge-current:supply-workshop',
      'charge-current:supply-hall',
      'charge-pilot:inlet-side',
      'charge-cable:inlet-side',
      'charge-lost:inlet-side',
      'charge-stop:device-charger',
      'charge-cut:cut-mains',
      'charge-station:supply-yard',
      'converter-load:vehicle',
    ]);
    const range = (id: string) => steps.find((step) => step.id === id)!.expected;
    expect(range('charge-pilot:inlet-side')).toMatchObject({ max: 6 * 1.05 });
    expect(range('charge-cable:inlet-side')).toMatchObject({ max: 13 * 1.05 });
    expect(range('charge-stop:device-charger')).toMatchObject({
      min: 396 * 0.98,
      max: 396 * 1.005,
      nominal: 396,
    });
    expect(range('charge-cut:cut-mains')).toMatchObject({ max: 0.3 });
    expect(range('charge-current:supply-workshop')).toMatchObject({ max: 21, nominal: 16 });
    expect(range('inlet-weld:inlet-side')).toMatchObject({ max: 60 });
    // Only loads that draw enough to show a bad crimp.
    expect(steps.some(({ id }) => id === 'load-drop:load-clock')).toBe(false);
    expect(steps.some(({ id }) => id === 'load-drop:load-steering')).toBe(true);
  });

  test('stand-ins pass every step when they read true, and a charger that goes on fails where it should', () => {
    const verdict = (id: string, behaviour: string) => {
      const step = steps.find((one) => one.id === id)!;
      const measured = standInReading(step, bus, evaluated, behaviour, 7)!;
      const judged = judgeMeasurement(step.expected!, measured);
      return judged.ok ? judged.judgement.verdict : judged.message;
    };
    for (const { id } of steps) expect([id, verdict(id, 'true')]).toEqual([id, 'pass']);
    expect(verdict('charge-cut:cut-mains', 'does-not-stop')).toBe('fail');
    expect(verdict('charge-lost:inlet-side', 'does-not-stop')).toBe('fail');
    expect(verdict('charge-lost:inlet-side', 'drop-outs')).toBe('fail');
    expect(verdict('charge-pilot:inlet-side', 'ignores-limit')).toBe('fail');
    expect(verdict('charge-stop:device-charger', 'charges-on')).toBe('fail');
  });
});

test('an acceptance of a supply’s finding is of its charger, breaker and inlet', () => {
  const tripped = changed((draft) => void (draft.supplies!['supply-depot']!.otherA = 6));
  const found = raised(tripped, 'charge.breaker-trips')[0]!;
  expect(found.state === 'raised' && found.parts).toEqual([
    'thornwick-c11-350@1',
    'dunmarsh-c20-4b@1',
    'saltmere-b32-125@1',
  ]);
  const unlocked = changed((draft) => void (draft.inlets!['inlet-side']!.lock = 'none'));
  const lock = raised(unlocked, 'charge.no-lock')[0]!;
  expect(lock.state === 'raised' && lock.parts).toEqual(['saltmere-b32-125@1']);
});

test('what cannot be is named by its field: a wire that carries nothing, loads below none', () => {
  const gaps = (change: (draft: Design) => void) =>
    evaluate(changed(change)).figures[`${depot}:minutes` as FigureId]!.gaps;
  expect(gaps((draft) => void (draft.inlets!['inlet-side']!.wireA = -5))).toMatchObject([
    { kind: 'invalid', path: 'inlets.inlet-side.wireA' },
  ]);
  expect(gaps((draft) => void (draft.supplies!['supply-depot']!.otherA = -1))).toMatchObject([
    { kind: 'invalid', path: 'supplies.supply-depot.otherA' },
  ]);
});

describe('the breaker of a supply', () => {
  const of = (name: string, design = bus, supply = 'supply-depot') =>
    evaluate(design).figures[`charge.breaker:${supply}:${name}` as FigureId];
  const state = (rule: string, design: Design, supply = 'supply-depot') =>
    evaluate(design).checks.find((one) => one.rule.id === rule && one.subjects.includes(supply))?.state;

  test('opens at once from three, five or ten times its rated current, by its curve, as a peak', () => {
    const at = (trip?: 'B' | 'C' | 'D') =>
      of(
        'opensFromA',
        changed((draft) => void (trip && (draft.supplies!['supply-depot']!.trip = trip))),
      )!.value!;
    // The part is a C of 20 A.
    expect(at()).toBeCloseTo(Math.SQRT2 * 5 * 20, 9);
    expect(at('B')).toBeCloseTo(Math.SQRT2 * 3 * 20, 9);
    expect(at('D')).toBeCloseTo(Math.SQRT2 * 10 * 20, 9);
    const typed = changed((draft) => void (draft.supplies!['supply-depot']!.breakerA = 16));
    expect(of('opensFromA', typed)!.value).toBeCloseTo(Math.SQRT2 * 5 * 16, 9);
  });

  test('meets what the chargers of its fullest phase draw at once, and what runs beside them', () => {
    const inrushA = (bus.parts['thornwick-c11-350@1']!.data as { inrushA: number }).inrushA;
    expect(of('inrushPeakA')!.value).toBe(inrushA);
    expect(of('inrushPeakA', bus, 'supply-hall')!.value).toBeCloseTo(inrushA + Math.SQRT2 * 4, 9);
    // Two on one phase add up; a second one on another phase does not.
    const second = (phase: 1 | 2) =>
      changed((draft) => {
        Object.assign(draft.devices['device-charger']!, { phase: 1 });
        draft.devices['device-second'] = { ...draft.devices['device-charger']!, tag: 'Second', phase };
      });
    expect(of('inrushPeakA', second(1))!.value).toBe(2 * inrushA);
    expect(of('inrushPeakA', second(2))!.value).toBe(inrushA);
    const edge = (share: number) =>
      changed((draft) => {
        const part = draft.parts['thornwick-c11-350@1']!;
        if (part.kind === 'charger') part.data.inrushA = Math.SQRT2 * 100 * share;
      });
    expect(state('charge.inrush-trips', edge(0.999))).toBe('clear');
    expect(state('charge.inrush-trips', edge(1.001))).toBe('raised');
    const unknown = changed((draft) => {
      Object.assign(draft.devices['device-charger']!, {
        maxInputA: 16,
        maxOutputA: 30,
        efficiencyFraction: 0.93,
        minV: 250,
        maxV: 420,
      });
      delete draft.devices['device-charger']!.charger;
    });
    expect(of('inrushPeakA', unknown)).toMatchObject({
      value: null,
      gaps: [{ path: 'devices.device-charger.charger', label: 'inrush of Charger, three-phase' }],
    });
    expect(state('charge.inrush-trips', unknown)).toBe('not-checked');
    // What the pilot offers does not bound it.
    const unread = changed((draft) => void delete draft.supplies!['supply-depot']!.offersA);
    expect(of('inrushPeakA', unread)!.value).toBe(inrushA);
    const nobody = changed((draft) => removeDevice(draft, 'device-charger'));
    expect(of('inrushPeakA', nobody)!.value).toBeNull();
  });

  test('opens alone below the curve of the one before it, in overload at 1.45 over 1.13 times', () => {
    const before = (upstreamA: number, faultA: number, upstreamTrip: 'B' | 'C' | 'D' | 'gG fuse' = 'C') =>
      changed((draft) => {
        Object.assign(draft.supplies!['supply-depot']!, { upstreamA, faultA, upstreamTrip });
      });
    expect(of('aloneToA', before(63, 400))!.value).toBe(5 * 63);
    expect(state('charge.not-selective', before(63, 315))).toBe('clear');
    expect(state('charge.not-selective', before(63, 316))).toBe('raised');
    expect(state('charge.not-selective', before(63, 600, 'D'))).toBe('clear');
    // 20 A here: 1.45 · 20 / 1.13 = 25.7 A before it.
    expect(state('charge.not-selective', before(25, 100))).toBe('raised');
    expect(state('charge.not-selective', before(26, 100))).toBe('clear');
    // Behind a gG fuse of 63 A, which begins to melt at 9000 A²s: √(9000/0.01) = 948.7 A; in overload 1.25 times instead of 1.13.
    const fuse = (upstreamA: number, faultA: number) => before(upstreamA, faultA, 'gG fuse');
    expect(of('aloneToA', fuse(63, 400))!.value).toBeCloseTo(948.683298, 6);
    expect(state('charge.not-selective', fuse(63, 948))).toBe('clear');
    expect(state('charge.not-selective', fuse(63, 949))).toBe('raised');
    expect(state('charge.not-selective', fuse(25, 100))).toBe('clear');
    expect(state('charge.not-selective', fuse(20, 100))).toBe('raised');
    // 35 A stands between two of the table: as 32 A, 1800 A²s.
    expect(of('aloneToA', fuse(35, 400))!.value).toBeCloseTo(Math.sqrt(1800 / 0.01), 9);
    expect(of('aloneToA', fuse(400, 400))!.value).toBeCloseTo(Math.sqrt(760_000 / 0.01), 9);
    expect(of('aloneToA', fuse(401, 400))!.value).toBeNull();
    expect(of('aloneToA', fuse(15, 400))).toMatchObject({
      value: null,
      gaps: [{ kind: 'invalid', path: 'supplies.supply-depot.upstreamA' }],
    });
    const nothing = changed((draft) => {
      delete draft.supplies!['supply-depot']!.upstreamA;
      delete draft.supplies!['supply-depot']!.upstreamTrip;
    });
    expect([state('charge.not-selective', nothing), of('aloneToA', nothing)]).toEqual([undefined, undefined]);
    const half = changed((draft) => void delete draft.supplies!['supply-depot']!.upstreamTrip);
    expect(state('charge.not-selective', half)).toBe('not-checked');
  });

  test('breaks what flows at its place, and parts every phase', () => {
    const fault = (faultA: number) =>
      changed((draft) => void (draft.supplies!['supply-depot']!.faultA = faultA));
    expect(state('charge.breaking', fault(6000))).toBe('clear');
    expect(state('charge.breaking', fault(6001))).toBe('raised');
    const unread = changed((draft) => void delete draft.supplies!['supply-depot']!.faultA);
    expect(state('charge.breaking', unread)).toBe('not-checked');
    expect(state('charge.breaker-poles', bus)).toBe('clear');
    const two = changed((draft) => void (draft.supplies!['supply-depot']!.breaker = 'dunmarsh-c16-2d@1'));
    expect(state('charge.breaker-poles', two)).toBe('raised');
    expect(state('charge.breaker-poles', bus, 'supply-hall')).toBe('clear');
  });
});
