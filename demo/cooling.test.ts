import { describe, expect, test } from '@jest/globals';
import { schoolsOf, type LoopAnswer, type PackOverTime } from '@torvek/core/cooling';
import { behaviours, judgeMeasurement, procedureFor, standInReading } from '@torvek/core/commissioning';
import { createEvaluator, evaluate } from '@torvek/core/design';
import {
  edit,
  feedsOfBox,
  removeDevice,
  removeJoin,
  removeLoad,
  removeLoop,
  removePiece,
  type Design,
} from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { deviceLoad } from '@torvek/core/network';
import { catalogueOf } from '@torvek/core/parts';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void, of = bus) =>
  edit(of, (draft) => recipe(draft as Design))!.design;
const value = (design: Design, id: string) => evaluate(design).figures[id as FigureId]?.value as number;
const answerOf = (design: Design, loop = 'loop-pack') =>
  evaluate(design).runs[`cooling.loop:${loop}`]?.result as LoopAnswer;
const raised = (design: Design, rule: string) =>
  evaluate(design).checks.flatMap((one) => (one.state === 'raised' && one.rule.id === rule ? [one] : []));

describe('a loop as it stands today', () => {
  const stub = {
    tag: 'Stub',
    loop: 'loop-pack',
    instead: ['piece-radiator'],
    from: 'join-pack-radiator',
    to: 'join-pack-tank',
    hose: 'wendover-h25@1',
    lengthM: 0.5,
    minorK: 3,
  };
  const today = changed((draft) => void (draft.standIns = { 'standin-1': { ...stub } }));
  const flow = (design: Design) => value(design, 'cooling.present:loop-pack:flowLPerMin');
  const planned = value(bus, 'cooling.loop:loop-pack:flowLPerMin');

  test('flows and holds as a plan of that plumbing would, and leaves the plan as it is', () => {
    const asPlan = changed((draft) => {
      delete draft.plumbing!['piece-radiator'];
      const { instead: _instead, ...hose } = stub;
      draft.plumbing!['piece-stub'] = { ...hose, kind: 'hose' };
    });
    expect(flow(today)).toBeCloseTo(value(asPlan, 'cooling.loop:loop-pack:flowLPerMin'), 9);
    expect(flow(today)).toBeGreaterThan(1.02 * planned);
    expect(value(today, 'cooling.present:loop-pack:volumeL')).toBeCloseTo(
      value(asPlan, 'cooling.fill:loop-pack:volumeL'),
      9,
    );
    expect(value(today, 'cooling.loop:loop-pack:flowLPerMin')).toBe(planned);
    expect(evaluate(bus).figures['cooling.present:loop-pack:flowLPerMin' as FigureId]).toBeUndefined();
  });

  test('a piece that is only left out is gone; without its pump nothing flows, and that is said', () => {
    const without = changed(
      (draft) =>
        void (draft.standIns = {
          'standin-1': { tag: 'Later', loop: 'loop-pack', instead: ['piece-plate-tail-1'] },
        }),
    );
    const asPlan = changed((draft) => void delete draft.plumbing!['piece-plate-tail-1']);
    expect(flow(without)).toBeCloseTo(value(asPlan, 'cooling.loop:loop-pack:flowLPerMin'), 9);
    const still = changed(
      (draft) =>
        void (draft.standIns = { 'standin-1': { tag: 'Later', loop: 'loop-pack', instead: ['piece-pump'] } }),
    );
    expect(flow(still)).toBeNull();
    // A piece in the one way there is: it is open, and no flow of 0 that a test could pass by.
    const open = changed(
      (draft) =>
        void (draft.standIns = {
          'standin-1': { tag: 'Later', loop: 'loop-pack', instead: ['piece-radiator'] },
        }),
    );
    expect(evaluate(open).figures['cooling.present:loop-pack:flowLPerMin' as FigureId]).toMatchObject({
      value: null,
      gaps: [{ kind: 'never' }],
    });
    const backwards = changed((draft) => void (draft.standIns = { 'standin-1': { ...stub, lengthM: -2 } }));
    const { figures } = evaluate(backwards);
    expect(figures['cooling.present:loop-pack:flowLPerMin' as FigureId]!.gaps).toMatchObject([
      { kind: 'invalid', path: 'standIns.standin-1.lengthM' },
    ]);
    expect(figures['cooling.present:loop-pack:volumeL' as FigureId]!.value).toBeNull();
    const unsaid = changed((draft) => {
      draft.standIns = { 'standin-1': { ...stub } };
      delete draft.standIns['standin-1']!.lengthM;
    });
    expect(evaluate(unsaid).figures['cooling.present:loop-pack:flowLPerMin' as FigureId]!.gaps).toMatchObject(
      [{ kind: 'not-given', path: 'standIns.standin-1.lengthM' }],
    );
  });

  test('its tests are judged by it, and are due again once the plan is complete', () => {
    const steps = (design: Design) => procedureFor(design, evaluate(design));
    const step = (design: Design, id: string) => steps(design).find((one) => one.id === id)!;
    const now = step(today, 'flow-loop:loop-pack');
    expect(now.expected).toMatchObject({ kind: 'range', nominal: flow(today), unit: 'L/min' });
    expect(now.basis.map(({ figure }) => figure)).toContain('cooling.present:loop-pack:flowLPerMin');
    expect(now.do).toContain('As it stands today');
    expect(step(bus, 'flow-loop:loop-pack').expected).toMatchObject({ nominal: planned });
    expect(step(bus, 'flow-loop:loop-pack').do).not.toContain('As it stands today');
    // A hose that bursts at 900 kPa is tested with 300 at most: the stub counts as well.
    const weak = changed((draft) => {
      const hose = draft.parts['wendover-h25@1']!;
      draft.parts['weak@1'] = { ...JSON.parse(JSON.stringify(hose)), id: 'weak' } as typeof hose;
      (draft.parts['weak@1']!.data as { burstKPa: number }).burstKPa = 120;
      draft.standIns = { 'standin-1': { ...stub, hose: 'weak@1' } };
    });
    expect(step(weak, 'leak-loop:loop-pack').expected).toMatchObject({ testKPa: 40 });
  });

  test('what goes takes its stand-ins along, or leaves them without it', () => {
    const after = (recipe: (draft: Design) => void) =>
      edit(today, (draft) => recipe(draft as Design))!.design;
    expect(after((draft) => removeLoop(draft, 'loop-pack')).standIns).toEqual({});
    const joinless = after((draft) => removeJoin(draft, 'join-pack-tank')).standIns!['standin-1']!;
    expect([joinless.from, joinless.to]).toEqual(['join-pack-radiator', undefined]);
    expect(
      after((draft) => removePiece(draft, 'piece-radiator')).standIns!['standin-1']!.instead,
    ).toBeUndefined();
  });
});

describe('the loops of the bus', () => {
  const answer = answerOf(bus);
  const flow = (id: string, of = answer) => of.flows[of.elements.findIndex((one) => one.id === id)]!;

  test('what goes in at each join comes out, and what the loads give the radiator takes', () => {
    const at = new Map<string, number>();
    answer.elements.forEach(({ from, to }, i) => {
      at.set(from, (at.get(from) ?? 0) - answer.flows[i]!);
      at.set(to, (at.get(to) ?? 0) + answer.flows[i]!);
    });
    for (const [, left] of at) expect(Math.abs(left)).toBeLessThan(1e-6);
    const hill = answer.cases.find((one) => one.at === 'hill')!;
    const heats = Object.values(hill.piecesC!).reduce((sum, one) => sum + (one?.heatW ?? 0), 0);
    expect(heats).toBeCloseTo(value(bus, 'cooling.hill:vehicle:packHeatW'), 6);
    const rad = hill.piecesC!['piece-radiator']!;
    const q = hill.flows[answer.elements.findIndex(({ id }) => id === 'piece-radiator')]!;
    // 50 % glycol at about 33 °C: ρ·c = 1068.2 kg/m³ · 3425 J/kgK.
    expect((q / 60_000) * 1068.2 * 3425 * (rad.inC - rad.outC)).toBeCloseTo(heats, -1);
  });

  test('plates share alike as throttled; nearly shut, a box is starved and its plates say so', () => {
    expect(value(bus, 'cooling.loop:loop-pack:imbalanceFraction')).toBeLessThan(0.03);
    const shut = changed((draft) => void (draft.plumbing!['piece-throttle-tail']!.openFraction = 0.03));
    expect(flow('piece-plate-tail-1', answerOf(shut))).toBeLessThan(0.2 * flow('piece-plate-nose-1'));
    expect(raised(shut, 'loop-balance.starved')[0]!.message).toMatch(/^Starved: Plate tail 1, 0\.\d+ L\/min/);
    expect(raised(shut, 'loop-balance.imbalance')).toEqual([]);
  });

  test('a throttle is one thing to be mended, by the worst that it does', () => {
    const loud = (openFraction: number) => {
      const design = changed(
        (draft) => void (draft.plumbing!['piece-throttle-tail']!.openFraction = openFraction),
      );
      return evaluate(design).checks.flatMap((one) =>
        one.state === 'raised' && /^(cooling|loop-balance|hydraulic)\./.test(one.rule.id)
          ? [`${one.rule.id}: ${one.subjects.filter((id) => id.startsWith('piece-plate-tail')).length}`]
          : [],
      );
    };
    expect(loud(0)).toEqual(['cooling.stands: 3']);
    expect(loud(0.03)).toEqual(['loop-balance.starved: 3']);
    // 0.1 of the opening lets 0.87 L/min through each, and they need 1.
    expect(loud(0.1)).toEqual(['loop-balance.imbalance: 3']);
    expect(loud(0.2)).toEqual(['loop-balance.imbalance: 0']);
    expect(loud(0.6)).toEqual([]);
  });

  test('a hose that ends in another loop says that, and not that its neighbours end', () => {
    const joined = changed((draft) => void (draft.plumbing!['piece-drive-hose']!.to = 'join-pack-radiator'));
    expect(raised(joined, 'cooling.wrong-loop')[0]!.message).toMatch(/^1 end lies in another loop: /);
    expect(raised(joined, 'cooling.dead-end')).toEqual([]);
    const loose = changed((draft) => {
      draft.joins!['join-x'] = { tag: 'End', loop: 'loop-drive', zM: 0.5 };
      draft.plumbing!['piece-drive-hose']!.to = 'join-x';
    });
    expect(raised(loose, 'cooling.dead-end')[0]!.message).toMatch(/^2 ends lead nowhere: /);
  });

  test('a hose from header to header: the pump is busy, the plates are not', () => {
    const joined = changed((draft) => {
      draft.plumbing!['piece-extra'] = { ...draft.plumbing!['piece-hose-1']!, to: 'join-pack-radiator' };
    });
    expect(value(joined, 'cooling.loop:loop-pack:shareFraction')).toBeLessThan(0.4);
    expect(raised(joined, 'loop-balance.bypass')).toHaveLength(1);
    expect(value(bus, 'cooling.loop:loop-pack:shareFraction')).toBeCloseTo(1, 9);
    // Loads one after the other are all passed by the same coolant.
    expect(value(bus, 'cooling.loop:loop-drive:shareFraction')).toBeCloseTo(1, 9);
  });

  test('heat of the cells: each module’s part on its plate, over filler and plate', () => {
    const hill = answer.cases[0]!.piecesC!;
    const packW = value(bus, 'cooling.hill:vehicle:packHeatW');
    expect(hill['piece-plate-nose-1']!.heatW).toBeCloseTo(packW / 8, 9);
    const { inC, outC, surfaceC } = hill['piece-plate-nose-1']!;
    expect(surfaceC).toBeCloseTo((inC + outC) / 2 + (packW / 8) * (0.0005 / (1.8 * 0.154) + 1 / 240), 6);
    const twice = changed((draft) => {
      draft.plumbing!['piece-plate-nose-2']!.modules = [...bus.plumbing!['piece-plate-nose-1']!.modules!];
    });
    expect(answerOf(twice).cases[0]!.piecesC!['piece-plate-nose-2']!.heatW).toBeCloseTo(packW / 16, 9);
  });

  test('a jacket takes its part of what goes through it, when it is busy', () => {
    const drive = answerOf(bus, 'loop-drive');
    const heat = (at: string, id: string) => drive.cases.find((one) => one.at === at)!.piecesC![id]!.heatW;
    const powerW = value(bus, 'cooling.hill:vehicle:powerW');
    expect(heat('hill', 'piece-inverter')).toBeCloseTo(0.03 * powerW, 6);
    expect(heat('hill', 'piece-charger')).toBe(0);
    expect(heat('home', 'piece-charger')).toBeCloseTo(
      0.06 * value(bus, 'charge.supply:supply-depot:outputW'),
      9,
    );
    expect(heat('fast', 'piece-charger')).toBe(0);
    // A device that is busy at a station takes its part of what the station has: 38 kW.
    const busy = changed((draft) => void (draft.plumbing!['piece-inverter']!.busy = 'both'));
    const fast = answerOf(busy, 'loop-drive').cases.find((one) => one.at === 'fast')!;
    expect(fast.piecesC!['piece-inverter']!.heatW).toBeCloseTo(0.03 * 38_000, 6);
    expect(heat('home', 'piece-motor')).toBe(0);
  });

  test('readings count before what is typed, that before the part', () => {
    const typed = changed((draft) => {
      draft.plumbing!['piece-plate-nose-1']!.kPaPerLpm = 20;
    });
    const read = changed((draft) => {
      draft.plumbing!['piece-plate-nose-1']!.readings = [
        [1, 2.5],
        [3, 16.5],
      ];
    }, typed);
    const own = (design: Design) => answerOf(design).elements.find(({ id }) => id === 'piece-plate-nose-1');
    expect(own(typed)).toMatchObject({ kPaPerLpm: 20, kPaPerLpm2: 0 });
    const fitted = own(read) as { kPaPerLpm: number; kPaPerLpm2: number };
    expect([fitted.kPaPerLpm, fitted.kPaPerLpm2].map((one) => Number(one.toFixed(9)))).toEqual([1, 1.5]);
  });

  test('a pump that is off while charging lets the pack’s coolant stand', () => {
    const off = changed((draft) => void (draft.plumbing!['piece-pump']!.switched = 'driving'));
    const [found] = raised(off, 'cooling.stands');
    expect(found!.message).toContain('fast charge');
    expect(
      answerOf(off)
        .cases.find(({ at }) => at === 'fast')!
        .flows.every((q) => Math.abs(q) < 1e-9),
    ).toBe(true);
    expect(
      answerOf(off)
        .cases.find(({ at }) => at === 'hill')!
        .flows.some((q) => q > 1),
    ).toBe(true);
  });

  test('what is found in one case is said though another lacks something; the hottest of all is not computed then', () => {
    const lacking = changed((draft) => {
      delete draft.vehicle.rollingCoefficient;
      draft.cooling!.hotC = 48;
    });
    expect(raised(lacking, 'cooling.coolant-hot')[0]!.message).toContain('fast charge');
    expect(evaluate(lacking).figures['cooling.loop:loop-pack:platesC' as FigureId]!.value).toBeNull();
    const cooler = changed((draft) => void (draft.cooling!.hotC = 30), lacking);
    const states = evaluate(cooler).checks.filter(({ rule }) => rule.id === 'cooling.coolant-hot');
    expect(states.map(({ state }) => state)).toEqual(['not-checked']);
  });

  test('a plate takes up no more than its flow carries', () => {
    const shut = (openFraction: number) =>
      changed((draft) => void (draft.plumbing!['piece-throttle-tail']!.openFraction = openFraction));
    const per = (design: Design) => value(design, 'cooling.loop:loop-pack:packUaWPerK');
    // Three of eight plates stand still; the others have a little more.
    expect(per(shut(0)) / per(bus)).toBeGreaterThan(5 / 8);
    expect(per(shut(0)) / per(bus)).toBeLessThan(0.8);
    expect(per(shut(0.02))).toBeLessThan(0.85 * per(bus));
    const q = flow('piece-plate-nose-1');
    const c = (q * 1068.4 * 3422) / 60_000;
    const one = c * (1 - Math.exp(-1 / ((0.0005 / (1.8 * 0.154) + 1 / 240) * c)));
    expect(per(bus) / 8).toBeCloseTo(one, -0.5);
    // Cells on a plate without flow settle nowhere.
    expect(evaluate(shut(0)).figures['cooling.loop:loop-pack:cellsC' as FigureId]!.value).toBeNull();
  });

  test('a gap in one piece keeps figures of that loop from being computed, and says where', () => {
    const open = changed((draft) => void delete draft.plumbing!['piece-hose-2']!.lengthM);
    const figure = evaluate(open).figures['cooling.loop:loop-pack:flowLPerMin' as FigureId]!;
    expect([figure.value, figure.gaps.map((gap) => 'path' in gap && gap.path)]).toEqual([
      null,
      ['plumbing.piece-hose-2.lengthM'],
    ]);
    expect(value(open, 'cooling.loop:loop-drive:flowLPerMin')).toBe(
      value(bus, 'cooling.loop:loop-drive:flowLPerMin'),
    );
    const checks = evaluate(open).checks.filter(({ subjects }) => subjects[0] === 'loop-pack');
    for (const { rule, state } of checks.filter((one) => /^(hydraulic|loop-balance)\./.test(one.rule.id)))
      expect([rule.id, state]).toEqual([rule.id, 'not-checked']);
  });

  test('what is removed takes along what hangs on it', () => {
    const without = changed((draft) => removeLoop(draft, 'loop-drive'));
    expect(Object.values(without.plumbing!).filter(({ loop }) => loop === 'loop-drive')).toEqual([]);
    expect(Object.keys(without.joins!).filter((id) => id.startsWith('join-drive'))).toEqual([]);
    const loose = changed((draft) => removeJoin(draft, 'join-pack-tank'));
    expect(loose.plumbing!['piece-pump']).not.toHaveProperty('from');
    expect(loose.loops!['loop-pack']).not.toHaveProperty('tank');
  });

  test('warm as from nothing after changes of the plumbing', () => {
    const evaluator = createEvaluator();
    evaluator.evaluate(bus);
    let design = bus;
    for (const recipe of [
      (draft: Design) => void (draft.plumbing!['piece-hose-3']!.lengthM = 9),
      (draft: Design) => void (draft.cooling!.hotC = 38),
      (draft: Design) => void draft.plumbing!['piece-plate-tail-3']!.modules!.pop(),
      (draft: Design) => void (draft.joins!['join-pack-tank']!.zM = 0.5),
      (draft: Design) => void (draft.boxes['box-left']!.walls![0]!.thicknessMm = 30),
    ]) {
      design = changed(recipe, design);
      const warm = evaluator.evaluate(design);
      const cold = evaluate(design);
      expect(warm.figures).toEqual(cold.figures);
      expect(warm.checks).toEqual(cold.checks);
    }
  });
});

describe('one loop or loops of their own', () => {
  test('one loop brings warmer coolant to the cells; without both kinds of load there is nothing to compare', () => {
    const { figures, runs } = evaluate(bus);
    const answers = (loop: string) =>
      (runs[`cooling.loop:${loop}`]?.result as LoopAnswer | undefined) ?? null;
    const rows = schoolsOf(bus, answers, (id) => figures[id])!;
    expect(rows.map(({ school }) => school)).toEqual(['loops of their own', 'one loop for all']);
    expect(rows[0]!.cellsC).toBeCloseTo(figures['cooling.loop:loop-pack:platesC' as FigureId]!.value!, 9);
    expect(rows[1]!.cellsC!).toBeGreaterThan(rows[0]!.cellsC! + 2);
    const alone = changed((draft) => removeLoop(draft, 'loop-drive'));
    expect(schoolsOf(alone, answers, (id) => figures[id])).toBeNull();
  });
});

describe('heat over time', () => {
  const ohm = value(bus, 'pack.pack:pack:resistanceOhm');
  test('a day of driving warms the pack by the rms of its cycle', () => {
    const wrapped = changed((draft) => {
      for (const id of ['box-nose', 'box-left', 'box-tail']) draft.boxes[id]!.walls![0]!.thicknessMm = 20_000;
      draft.cooling!.startC = 20;
    });
    const { profile } = evaluate(wrapped).runs['cooling.pack:pack']!.input as { profile: [number, number][] };
    const onceS = profile.reduce((sum, [s]) => sum + s, 0);
    const heatJ = value(bus, 'vehicle.cycle:vehicle:rmsA') ** 2 * ohm * onceS * 12;
    const massKg = value(bus, 'pack.pack:pack:massKg');
    const rise = value(wrapped, 'cooling.pack:pack:uncooledMaxC') - 20;
    expect(rise / (heatJ / (massKg * 1000))).toBeCloseTo(1, 1);
    expect(profile.reduce((sum, [s, a]) => sum + s * a * a, 0) / onceS).toBeCloseTo(
      value(bus, 'vehicle.cycle:vehicle:rmsA') ** 2,
      6,
    );
  });
  test('a fast charge heats by the resistance of the whole pack', () => {
    const peakA = value(bus, 'cooling.charge:fast:peakA');
    const share = value(bus, 'cooling.charge:fast:packHeatW') / (peakA ** 2 * ohm);
    expect(share).toBeGreaterThan(0.8);
    expect(share).toBeLessThan(1);
  });
});

describe('cold', () => {
  test('the bus: a heater in the coolant is shared out by mass', () => {
    const shares = ['box-nose', 'box-left', 'box-tail'].map((box) =>
      value(bus, `cooling.box:${box}:heaterW`),
    );
    expect(shares.map((one) => one / 3000)).toEqual([0.25, 0.375, 0.375]);
  });
  test('the truck: a mat under the cells, at the lowest voltage of the pack', () => {
    const truck = orchardTruck.design;
    const ua = value(truck, 'cooling.box:box-seat:uaWPerK');
    // All six faces of 0.78 × 0.6 × 0.3 m; foam 20 mm, aluminium 3 mm.
    const area = 2 * (0.78 * 0.6 + 0.78 * 0.3 + 0.6 * 0.3);
    expect(ua).toBeCloseTo(area / (1 / 5 + 0.02 / 0.034 + 0.003 / 160 + 1 / 15), 9);
    expect(value(truck, 'cooling.box:box-seat:holdW')).toBeCloseTo(8 * ua, 9);
    expect(value(truck, 'cooling.box:box-seat:heaterW')).toBe(150);
    const measured = changed((draft) => void (draft.boxes['box-seat']!.heaterW = 90), truck);
    expect(value(measured, 'cooling.box:box-seat:heaterW')).toBe(90);
    expect(value(measured, 'cooling.box:box-seat:warmS')).toBeGreaterThan(
      value(truck, 'cooling.box:box-seat:warmS'),
    );
  });
  test('a design that says nothing of cooling is asked nothing', () => {
    const silent = changed((draft) => {
      for (const key of ['cooling', 'cabin', 'loops', 'joins', 'plumbing'] as const) delete draft[key];
    });
    const { figures, checks } = evaluate(silent);
    expect(Object.keys(figures).filter((id) => id.startsWith('cooling.'))).toEqual([]);
    expect(checks.filter(({ rule }) => rule.id.startsWith('cooling.'))).toEqual([]);
  });
});

describe('leak tests of the procedure', () => {
  const evaluation = evaluate(bus);
  const procedure = procedureFor(bus, evaluation);
  const step = procedure.find(({ id }) => id === 'leak-plate:piece-plate-nose-1')!;
  const held = {
    kind: 'hold',
    startKPaGauge: 120,
    endKPaGauge: 117.9,
    startC: 20,
    endC: 17.5,
    minutes: 30,
    unit: 'kPa',
  } as const;

  test('are in stages, each plate before its modules lie on it', () => {
    const leaks = procedure.filter(({ id }) => id.startsWith('leak-'));
    expect(leaks.map(({ id }) => id.split(':')[0])).toEqual([
      ...Array.from({ length: 8 }, () => 'leak-plate'),
      ...Array.from({ length: 3 }, () => 'leak-box'),
      'leak-loop',
      'leak-loop',
    ]);
    expect(step.touchedBy).toEqual(['piece-plate-nose-1', 'module-101', 'module-201']);
  });
  test('a gauge that fell with the shop’s temperature passes; the same at one temperature does not', () => {
    const judged = judgeMeasurement(step.expected!, held);
    expect(judged).toMatchObject({ ok: true, judgement: { verdict: 'pass' } });
    expect(judgeMeasurement(step.expected!, { ...held, endC: 20 })).toMatchObject({
      judgement: { verdict: 'fail' },
    });
  });
  test('too little pressure or too short a hold is no test', () => {
    expect(
      judgeMeasurement(step.expected!, { ...held, startKPaGauge: 110, endKPaGauge: 109, endC: 19.5 }),
    ).toMatchObject({
      judgement: { verdict: 'fail', reasons: ['began at 110 kPa; 120 kPa are asked'] },
    });
    expect(judgeMeasurement(step.expected!, { ...held, minutes: 20 })).toMatchObject({
      judgement: { verdict: 'fail', reasons: ['held for 20 min; 30 min are asked'] },
    });
    expect(judgeMeasurement(step.expected!, { kind: 'value', value: 1, unit: 'kPa' })).toMatchObject({
      ok: false,
    });
  });
  test('the pressure is no more than the weakest part stands', () => {
    const weak = changed((draft) => {
      const part = draft.parts['galewood-k900@1'];
      if (part?.kind === 'radiator') part.data.testKPa = 70;
    });
    const loop = procedureFor(weak, evaluate(weak)).find(({ id }) => id === 'leak-loop:loop-pack')!;
    expect(loop.expected).toMatchObject({ testKPa: 70 });
  });
  test('stand-ins hold, leak, and mislead', () => {
    for (const { instrument, id } of [step, procedure.find((one) => one.id === 'warm-box:box-tail')!]) {
      const own = procedure.find((one) => one.id === id)!;
      for (const behaviour of behaviours[instrument]) {
        const measured = standInReading(own, bus, evaluation, behaviour.id, 7)!;
        const judged = judgeMeasurement(own.expected!, measured);
        const passes = judged.ok && judged.judgement.verdict === 'pass';
        expect([behaviour.id, passes]).toEqual([
          behaviour.id,
          ['true', 'loose-probe'].includes(behaviour.id),
        ]);
      }
    }
  });
});

describe('a box that a fan blows through', () => {
  const truck = orchardTruck.design;
  const fan = catalogueOf('fan').find(({ data }) => data.supplyV === 12)!;
  const key = `${fan.id}@${fan.revision}`;
  const blownThrough = (more: (box: Design['boxes'][string], draft: Design) => void = () => undefined) =>
    changed((draft) => {
      draft.parts[key] = fan;
      const box = draft.boxes['box-seat']!;
      Object.assign(box, { fan: key, airAreaM2: 0.5 });
      more(box, draft);
    }, truck);
  const air = (design: Design, name: string) =>
    evaluate(design).figures[`cooling.air:box-seat:${name}` as FigureId];

  test('its air, what goes over to it, and where its cells settle on the hill', () => {
    const design = blownThrough();
    const heatW = value(design, 'cooling.hill:vehicle:packHeatW');
    const airKgPerS = 0.6 * fan.data.airKgPerS;
    const flow = airKgPerS * 1006;
    const ua = flow * (1 - Math.exp((-15 * 0.5) / flow));
    expect(air(design, 'airKgPerS')?.value).toBeCloseTo(airKgPerS, 12);
    expect(air(design, 'airWPerK')?.value).toBeCloseTo(ua, 9);
    // 30 °C on the hottest day; no charge is asked that heats more than the hill does.
    const heats = ['cooling.charge:home:packHeatW', 'cooling.charge:fast:packHeatW'].map(
      (id) => evaluate(design).figures[id as FigureId]?.value ?? 0,
    );
    const most = Math.max(heatW, ...heats);
    expect(air(design, 'outC')?.value).toBeCloseTo(30 + most / flow, 9);
    expect(air(design, 'cellsC')?.value).toBeCloseTo(30 + most / ua, 9);
    // Measured, it counts instead of the sheet.
    expect(
      air(
        blownThrough((box) => void (box.airKgPerS = 0.05)),
        'airKgPerS',
      )?.value,
    ).toBe(0.05);
    // More air, or more face in it, never makes them warmer.
    for (const more of [{ airKgPerS: 1 }, { airAreaM2: 1 }, { airFilmWPerM2K: 30 }])
      expect(
        air(
          blownThrough((box) => void Object.assign(box, more)),
          'cellsC',
        )!.value,
      ).toBeLessThan(air(design, 'cellsC')!.value!);
  });

  test('without its faces nothing is guessed; too warm is said with the air that there is', () => {
    const bare = blownThrough((box) => void delete box.airAreaM2);
    expect(air(bare, 'cellsC')).toMatchObject({ value: null, gaps: [{ path: 'boxes.box-seat.airAreaM2' }] });
    expect(air(bare, 'airKgPerS')!.value).not.toBeNull();
    const state = (design: Design) =>
      evaluate(design).checks.find(
        ({ rule, subjects }) => rule.id === 'cooling.cells-hot' && subjects[0] === 'box-seat',
      );
    expect(state(bare)?.state).toBe('not-checked');
    expect(state(blownThrough())?.state).toBe('clear');
    const little = blownThrough((box) => void (box.airAreaM2 = 0.03));
    expect(state(little)).toMatchObject({ state: 'raised', parts: [key] });
    expect(state(truck)).toBeUndefined();
    for (const [field, wrong] of [
      ['airAreaM2', 0],
      ['airKgPerS', -1],
      ['airShareFraction', 1.5],
      ['airFilmWPerM2K', 0],
    ] as const) {
      const design = blownThrough((box) => void (box[field] = wrong));
      expect(air(design, 'cellsC')).toMatchObject({
        value: null,
        gaps: [{ kind: 'invalid', path: `boxes.box-seat.${field}` }],
      });
    }
  });

  test('it cools the pack over the day, and modules on a plate give it nothing', () => {
    const design = blownThrough(
      (_, draft) =>
        void Object.assign(draft.cooling!, { onAboveC: 22, offBelowC: 20, hotC: 15, repeats: 12 }),
    );
    expect(value(design, 'cooling.pack:pack:driveMaxC')).toBeLessThan(
      value(design, 'cooling.pack:pack:uncooledMaxC'),
    );
    const halved = blownThrough((_, draft) => {
      const own = Object.keys(draft.modules);
      draft.plumbing = {
        plate: { tag: 'Plate', kind: 'plate', modules: own.slice(0, own.length / 2) },
      };
    });
    const rise = (of: Design) => air(of, 'cellsC')!.value! - 30;
    expect(rise(halved)).toBeCloseTo(rise(blownThrough()) / 2, 9);
  });

  test('what is not known of one case leaves the warmest of all unknown; a fan that is off is not called enough', () => {
    const state = (design: Design) =>
      evaluate(design).checks.find(
        ({ rule, subjects }) => rule.id === 'cooling.cells-hot' && subjects[0] === 'box-seat',
      )!;
    const still = blownThrough((box) => void (box.fanSwitched = 'driving'));
    expect(state(still)).toMatchObject({ state: 'not-checked', gaps: [{ kind: 'never' }] });
    const blind = (airAreaM2: number) =>
      blownThrough((box, draft) => {
        box.airAreaM2 = airAreaM2;
        // Not a charge: what it heats is not known.
        draft.cooling!.chargeW = -5;
      });
    expect(air(blind(0.5), 'cellsC')!.value).toBeNull();
    expect(air(blind(0.5), 'airWPerK')!.value).not.toBeNull();
    expect(state(blind(0.5)).state).toBe('not-checked');
    expect(state(blind(0.03)).state).toBe('raised');
  });

  test('it is fed like a pump: its voltage, when it runs, and what it draws', () => {
    const fed = (when: 'driving' | 'always', powerW: number, supplyV = 12) =>
      blownThrough((box, draft) => {
        draft.parts[key] = { ...fan, data: { ...fan.data, supplyV } };
        (draft.loads ??= {})['load-fan'] = { tag: 'Box fan', when, powerW };
        box.fanLoads = ['load-fan'];
      });
    const said = (design: Design) =>
      evaluate(design).checks.flatMap((one) =>
        one.state === 'raised' && [...one.subjects].some((id) => id === 'box-seat' || id === 'load-fan')
          ? [one.rule.id]
          : [],
      );
    expect(said(fed('always', fan.data.powerW))).not.toEqual(
      expect.arrayContaining(['low-voltage.fed-when']),
    );
    expect(said(fed('driving', fan.data.powerW))).toContain('low-voltage.fed-when');
    expect(said(fed('always', fan.data.powerW - 1))).toContain('low-voltage.fed-less');
    expect(said(fed('always', fan.data.powerW))).not.toContain('low-voltage.fed-less');
    expect(said(fed('always', fan.data.powerW, 24))).toContain('low-voltage.part-voltage');
    expect(said(fed('always', fan.data.powerW))).not.toContain('low-voltage.part-voltage');
    const gone = edit(fed('always', 80), (draft) => removeLoad(draft as Design, 'load-fan'))!.design;
    expect(gone.boxes['box-seat']!.fanLoads).toBeUndefined();
  });
});

describe('each plate for itself', () => {
  const shut = changed((draft) => void (draft.plumbing!['piece-throttle-nose']!.openFraction = 0.02));
  const hottest = (design: Design) => value(design, 'cooling.loop:loop-pack:modulesDriveC');

  test('the pack is as hot as its hottest plate, and days go by that too', () => {
    for (const design of [bus, shut]) {
      const { drive, charge } = evaluate(design).runs['cooling.pack:pack']!.result as PackOverTime;
      const chargeC = value(design, 'cooling.loop:loop-pack:modulesChargeC');
      expect(value(design, 'cooling.pack:pack:driveMaxC')).toBe(Math.max(drive.maxC, hottest(design)));
      expect(value(design, 'cooling.pack:pack:chargeMaxC')).toBe(Math.max(charge!.maxC, chargeC));
      expect(value(design, 'cooling.pack:pack:settledMaxC')).toBeGreaterThanOrEqual(
        value(design, 'cooling.pack:pack:driveMaxC'),
      );
    }
  });

  test('a throttle nearly shut warms what lies on its plates, and cools the others for longer', () => {
    const plates = (design: Design) => answerOf(design).day!.plates;
    const of = (design: Design, id: string) => plates(design).find((one) => one.id === `piece-plate-${id}`)!;
    expect(of(shut, 'nose-1').coolingWPerK).toBeLessThan(0.2 * of(bus, 'nose-1').coolingWPerK);
    expect(of(shut, 'nose-1').driveMaxC).toBeGreaterThan(of(bus, 'nose-1').driveMaxC + 0.4);
    expect(of(shut, 'tail-1').driveMaxC).toBeLessThan(of(shut, 'nose-1').driveMaxC - 0.4);
    expect(of(shut, 'tail-1').chargeMaxC!).toBeLessThan(of(bus, 'tail-1').chargeMaxC! - 1);
    expect(plates(bus).map(({ id }) => id)).toHaveLength(8);
  });

  test('what no lump can be is a gap as it is for the whole, and no number', () => {
    const weightless = changed((draft) => {
      for (const part of Object.values(draft.parts)) if (part.kind === 'module') part.data.massKg = 0;
    });
    const cold = changed((draft) => void (draft.cooling!.cellHeatJPerKgK = -5));
    const often = changed((draft) => void (draft.cooling!.repeats = 1.5));
    const said = (design: Design) => raised(design, 'cooling.contradiction').map(({ message }) => message);
    expect(said(often)).toEqual(['Temperature over time must be a whole number.']);
    expect(said(cold)).toEqual(['Specific heat of modules must be above 0.']);
    for (const design of [weightless, cold, often]) {
      const { figures } = evaluate(design);
      for (const id of [
        'cooling.loop:loop-pack:modulesDriveC',
        'cooling.pack:pack:driveMaxC',
      ] as FigureId[]) {
        expect(figures[id]!.value).toBeNull();
        expect(figures[id]!.gaps.length).toBeGreaterThan(0);
      }
    }
  });

  test('one that is too hot is said once, with its own temperature beside the whole', () => {
    const hot = changed((draft) => {
      draft.plumbing!['piece-throttle-nose']!.openFraction = 0.02;
      draft.cooling!.cellMaxC = 35.3;
    });
    const { drive } = evaluate(hot).runs['cooling.pack:pack']!.result as PackOverTime;
    expect(drive.maxC).toBeLessThan(35.3);
    expect(raised(hot, 'cooling.drive-hot').map(({ message }) => message)).toEqual([
      'Over the drives of the day the modules on the hottest plate reach 35.5 °C, the pack as a whole 35 °C; cells may get 35.3 °C.',
    ]);
  });
});

describe('heaters and what feeds them', () => {
  test('coolant brings cells no more than its ceiling lets pass', () => {
    const wPerK = value(bus, 'cooling.loop:loop-pack:coldWPerK');
    expect(wPerK).toBeLessThan(value(bus, 'cooling.loop:loop-pack:packUaWPerK'));
    const held = changed((draft) => void (draft.plumbing!['piece-heater']!.coolantMaxC = 4));
    const whole = (design: Design) =>
      ['nose', 'left', 'tail'].reduce((sum, box) => sum + value(design, `cooling.box:box-${box}:heaterW`), 0);
    expect(whole(bus)).toBeCloseTo(3000, 6);
    expect(whole(held)).toBeCloseTo(2 * wPerK, 6);
    expect(value(held, 'cooling.box:box-nose:warmS')).toBeGreaterThan(
      value(bus, 'cooling.box:box-nose:warmS'),
    );
  });

  test('without flow in the cold nothing is brought, and that is a gap or nothing', () => {
    const still = changed((draft) => void delete draft.plumbing!['piece-pump']);
    const { value: none, gaps } = evaluate(still).figures['cooling.box:box-nose:heaterW' as FigureId]!;
    expect(none).toBeNull();
    expect(gaps.length).toBeGreaterThan(0);
  });

  test('the branch of a heater carries what its part takes at the lowest voltage', () => {
    const { devices, circuits, parts, boxes, plumbing } = bus;
    const load = deviceLoad(
      { devices, circuits, parts, boxes, plumbing },
      'circuit-coolant-heater',
      300,
      400,
    );
    expect(load).toMatchObject({ ok: true, profile: [[3600, 10]] });
    expect(
      evaluate(bus).figures['pack.heater:device-coolant-heater:powerAtLowW' as FigureId],
    ).toBeUndefined();
    const loose = changed((draft) => void delete draft.plumbing!['piece-heater']!.heaterDevice);
    expect(raised(loose, 'cooling.heater-no-branch')).toMatchObject([
      { subjects: ['piece-heater'], message: expect.stringContaining('takes 3000 W of the pack') },
    ]);
  });

  test('on the mains it asks for no branch, and the pack gives nothing for it', () => {
    const mains = changed((draft) => {
      draft.plumbing!['piece-heater']!.fedFrom = 'mains';
      delete draft.plumbing!['piece-heater']!.heaterDevice;
    });
    expect(raised(mains, 'cooling.heater-no-branch')).toEqual([]);
    expect(value(mains, 'vehicle.winter:vehicle:rangeKm')).toBeGreaterThan(
      value(bus, 'vehicle.winter:vehicle:rangeKm'),
    );
  });

  test('a box is warmed by what lies in it and by the coolant of its own plates, not by that of another loop', () => {
    const feeds = (design: Design, box: string) => feedsOfBox(design, box);
    expect(['box-nose', 'box-left', 'box-collector'].map((box) => feeds(bus, box))).toEqual([
      ['pack'],
      ['pack'],
      [],
    ]);
    const other = changed((draft) => {
      draft.plumbing!['piece-drive-heater'] = {
        tag: 'Drive heater',
        loop: 'loop-drive',
        kind: 'heater',
        heater: draft.plumbing!['piece-heater']!.heater!,
        fedFrom: 'mains',
      };
      draft.boxes['box-nose']!.heater = draft.plumbing!['piece-heater']!.heater!;
      draft.boxes['box-nose']!.heaterVoltage = '12 V';
    });
    expect([feeds(other, 'box-nose'), feeds(other, 'box-tail')]).toEqual([['12 V', 'pack'], ['pack']]);
  });

  test('a device that goes is named by no heater', () => {
    const gone = changed((draft) => removeDevice(draft, 'device-coolant-heater'));
    expect(gone.plumbing!['piece-heater']!.heaterDevice).toBeUndefined();
    expect(gone.circuits['circuit-coolant-heater']).toBeUndefined();
  });
});

test('the tank is the highest as the vehicle stands while it is filled', () => {
  const nose = (deg: number) => changed((draft) => void (draft.loops!['loop-pack']!.fillNoseUpDeg = deg));
  expect([...raised(bus, 'cooling.tank-low'), ...raised(nose(6), 'cooling.tank-low')]).toEqual([]);
  const [low] = raised(nose(-12), 'cooling.tank-low');
  expect(low!.message).toBe('With its nose 12° down: Tank, pack lies at 0.973 m; Pack loop reaches 1.48 m.');
  expect(low!.values).toContainEqual({ label: 'nose down', value: 12, unit: '°' });
  const unplaced = changed((draft) => {
    draft.loops!['loop-pack']!.fillNoseUpDeg = 6;
    delete draft.joins!['join-pack-tail-in']!.xM;
  });
  expect(evaluate(unplaced).checks.find(({ key }) => key === 'cooling.tank-low|loop-pack')).toMatchObject({
    state: 'not-checked',
    gaps: [{ path: 'joins.join-pack-tail-in.xM' }],
  });
});

describe('clamps', () => {
  const steps = (design: Design) =>
    procedureFor(design, evaluate(design)).filter(({ id }) => id.startsWith('clamps-'));
  const itemsOf = (design: Design, id: string) => {
    const expected = steps(design).find((step) => step.id === id)?.expected;
    return expected?.kind === 'list' ? expected.items : [];
  };

  test('each end of each hose is seen once: at plates before the lid, the others before filling', () => {
    const hoses = Object.values(bus.plumbing!).filter(({ kind }) => kind === 'hose');
    const items = steps(bus).flatMap(({ id }) => itemsOf(bus, id));
    expect(items).toHaveLength(2 * hoses.length);
    expect(new Set(items).size).toBe(items.length);
    expect(itemsOf(bus, 'clamps-box:box-tail')).toEqual(['Back from the tail, Tail, out']);
    expect(itemsOf(bus, 'clamps-loop:loop-drive')).toHaveLength(2);
  });

  test('one that slipped fails, and what stands in for now is held by clamps as well', () => {
    const step = steps(bus).find(({ id }) => id === 'clamps-loop:loop-drive')!;
    const verdict = (values: number[]) => {
      const judged = judgeMeasurement(step.expected!, { kind: 'list', values, unit: 'mm' });
      return judged.ok && judged.judgement.verdict;
    };
    expect([verdict([0, 1]), verdict([0, 1.2]), verdict([0])]).toEqual(['pass', 'fail', false]);
    const today = changed(
      (draft) =>
        void (draft.standIns = {
          'standin-1': {
            tag: 'Stub',
            loop: 'loop-drive',
            instead: ['piece-drive-hose'],
            from: 'join-drive-motor',
            to: 'join-drive-radiator',
            hose: 'wendover-h25@1',
            lengthM: 0.5,
          },
        }),
    );
    expect(itemsOf(today, 'clamps-loop:loop-drive').map((one) => one.split(',')[0])).toEqual([
      'Stub',
      'Stub',
    ]);
  });
});
