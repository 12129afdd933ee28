import { describe, expect, test } from '@jest/globals';
import { asBuilt } from '@torvek/core/built';
import { procedureFor } from '@torvek/core/commissioning';
import { evaluate, createEvaluator } from '@torvek/core/design';
import {
  checkDesign,
  cutPlaces,
  edit,
  laid,
  partPlaces,
  removePiece,
  runLengths,
  runMass,
  type Design,
} from '@torvek/core/document';
import { deriveNetwork } from '@torvek/core/network';
import type { Entry } from '@torvek/core/record';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void, of = bus) =>
  edit(of, (draft) => recipe(draft as Design))!.design;
const inlet = 'run-inlet';
const circuit = 'circuit-inlet';
const value = (design: Design, id: string) => evaluate(design).figures[id as never]?.value as number;
const cutM = (design: Design, run = inlet) => runLengths(design.runs![run]!)!.cutM;
const raised = (design: Design, rule: string) =>
  evaluate(design).checks.flatMap((one) => (one.state === 'raised' && one.rule.id === rule ? [one] : []));

describe('a routed circuit', () => {
  test('has the length of its run: resistance, network and mass go by it, whatever is typed', () => {
    const { lengthM, stretches } = laid(bus).circuits[circuit]!;
    expect(lengthM).toBeCloseTo(cutM(bus), 9);
    expect(stretches!.map(({ install, conduitInnerMm }) => [install, conduitInnerMm])).toEqual([
      ['steel-conduit', 42],
    ]);
    const typed = changed((draft) => void (draft.circuits[circuit]!.lengthM = 50));
    expect(value(typed, `conductor.loop:${circuit}:loopOhm`)).toBe(
      value(bus, `conductor.loop:${circuit}:loopOhm`),
    );
    const part = bus.parts['marl-x35@1'];
    if (part?.kind !== 'cable') throw new Error('no cable');
    expect(runMass(bus.runs![inlet]!, bus)!.massKg).toBeCloseTo(2 * part.data.massKgPerM * cutM(bus), 9);
    const without = changed((draft) => void delete draft.runs![inlet]);
    expect(
      value(bus, 'vehicle.masses:vehicle:inKg') - value(without, 'vehicle.masses:vehicle:inKg'),
    ).toBeCloseTo(runMass(bus.runs![inlet]!, bus)!.massKg, 9);
    const words = JSON.stringify(
      deriveNetwork(laid(bus)).symbols.find(({ id }) => id === `${circuit}/cable`),
    );
    expect(words).toContain('3.29 m');
  });

  test('moves with its points: a longer way drops more, warm as from nothing', () => {
    const evaluator = createEvaluator();
    evaluator.evaluate(bus);
    const longer = changed((draft) => void (draft.runs![inlet]!.points![3]!.zM = 1.5));
    const warm = evaluator.evaluate(longer);
    expect(warm.figures).toEqual(evaluate(longer).figures);
    expect(cutM(longer)).toBeGreaterThan(cutM(bus) + 0.1);
    expect(warm.figures[`conductor.cable:${circuit}:voltageDropV` as never]).toMatchObject({
      value: expect.closeTo(
        (value(bus, `conductor.cable:${circuit}:voltageDropV`) * cutM(longer)) / cutM(bus),
        6,
      ),
    });
  });

  test('a point without a coordinate leaves it uncomputed, with the gap at the run', () => {
    const open = changed((draft) => void delete draft.runs![inlet]!.points![2]!.yM);
    const loop = evaluate(open).figures[`conductor.loop:${circuit}:loopOhm`]!;
    expect([loop.value, loop.gaps.map((gap) => 'path' in gap && gap.path)]).toEqual([
      null,
      [`runs.${inlet}.points`],
    ]);
    const cut = evaluate(open).figures[`routing.run:${inlet}:cutLengthM`]!;
    expect(cut.gaps.map((gap) => 'path' in gap && gap.path)).toEqual([`runs.${inlet}.points.2.yM`]);
  });

  test('legs lie as they are said to: what is clipped and what is in the tube add up to the whole', () => {
    const parts = runLengths(bus.runs!['run-compressor']!)!;
    expect(parts.parts.map(({ way }) => way)).toEqual(['clipped', 'conduit']);
    expect(parts.parts.reduce((sum, { lengthM }) => sum + lengthM, 0)).toBeCloseTo(parts.cutM, 9);
    expect(parts.cutM).toBeCloseTo(parts.pathM * 1.03 + 0.12, 9);
    const installs = laid(bus).circuits['circuit-compressor']!.stretches!.map(({ install }) => install);
    expect(installs).toEqual(['free-air', 'steel-conduit']);
  });

  test('one pole alone is a finding, and its length stays as typed; a run for each pole counts half each', () => {
    const one = changed((draft) => void (draft.runs![inlet]!.poles = 'plus'));
    expect(laid(one).circuits[circuit]).toBe(one.circuits[circuit]);
    expect(raised(one, 'run.one-pole')).toHaveLength(1);
    const both = changed((draft) => {
      draft.runs!['run-minus'] = { ...structuredClone(bus.runs![inlet]!), tag: 'Minus', poles: 'minus' };
      draft.runs!['run-minus'].points![3]!.zM = 1.5;
    }, one);
    expect(laid(both).circuits[circuit]!.lengthM).toBeCloseTo((cutM(both) + cutM(both, 'run-minus')) / 2, 9);
    expect(raised(both, 'run.one-pole')).toEqual([]);
    expect(raised(both, 'run.twice')).toEqual([]);
  });

  test('two pairs in one tube warm each other', () => {
    const full = changed((draft) => void draft.runs![inlet]!.circuits!.push('circuit-charger'));
    expect(laid(full).circuits[circuit]!.stretches![0]!.grouped).toBe(4);
    expect(value(full, `conductor.cable:${circuit}:ampacityA`)).toBeLessThan(
      value(bus, `conductor.cable:${circuit}:ampacityA`),
    );
    expect(value(full, `routing.tube:${inlet}/1:fillFraction`)).toBeGreaterThan(
      value(bus, `routing.tube:${inlet}/1:fillFraction`),
    );
  });

  test('a measured length counts instead of what the points give; the record’s over both', () => {
    const measured = changed((draft) => void (draft.runs![inlet]!.cutLengthM = 4));
    expect(laid(measured).circuits[circuit]!.lengthM).toBeCloseTo(4, 9);
    expect(value(measured, `routing.run:${inlet}:cutLengthM`)).toBe(4);
    expect(value(measured, `routing.run:${inlet}:pathLengthM`)).toBe(
      value(bus, `routing.run:${inlet}:pathLengthM`),
    );
    const entries = [
      {
        seq: 3,
        subjects: [],
        body: {
          kind: 'cable-cut',
          place: `runs.${inlet}.cutLengthM`,
          name: '',
          lengthM: 4.5,
          designedM: null,
          batch: null,
        },
      },
    ] as unknown as Entry[];
    expect(laid(asBuilt(measured, entries).design).circuits[circuit]!.lengthM).toBeCloseTo(4.5, 9);
  });

  test('a cable of the pack that is routed has the length of its run', () => {
    const lead = Object.keys(bus.pack.leads!)[0]!;
    const routed = changed((draft) => {
      draft.runs!['run-lead'] = { ...structuredClone(bus.runs!['run-dcdc']!), tag: 'Lead', leads: [lead] };
      delete draft.runs!['run-lead'].circuits;
    });
    expect(laid(routed).pack.leads![lead]!.lengthM).toBeCloseTo(cutM(routed, 'run-lead'), 9);
    expect(value(routed, `pack.lead:${lead}:ohm`)).not.toBe(value(bus, `pack.lead:${lead}:ohm`));
  });

  test('without runs a design is itself', () => {
    const plain = changed((draft) => void delete draft.runs);
    expect(laid(plain)).toBe(plain);
    const other = changed((draft) => void (draft.vehicle.speedKmH = 61));
    expect(laid(other).circuits[circuit]).toBe(laid(bus).circuits[circuit]);
  });
});

describe('what a run is judged by', () => {
  test('each line by its own distance, with the one asked for where the design says so', () => {
    const near = changed((draft) => void (draft.hazards!['hazard-shaft']!.minSeparationMm = 600));
    expect(raised(near, 'route.separation').map(({ subjects }) => [...subjects].sort())).toEqual([
      ['hazard-shaft', 'run-compressor'],
      ['hazard-shaft', 'run-dcdc'],
      ['hazard-shaft', 'run-hose-tail'],
      ['hazard-shaft', inlet].sort(),
    ]);
    const open = changed((draft) => void delete draft.hazards!['hazard-brake']!.points![1]!.yM);
    const checks = evaluate(open).checks.filter(({ rule }) => rule.id === 'route.separation');
    expect(checks.filter(({ state }) => state === 'not-checked')).toHaveLength(4);
    // Four lines and a hose for each of three cables; a hose keeps away from all lines but coolant.
    expect(checks.filter(({ state }) => state === 'clear')).toHaveLength(3 * 5 + 3 - 4);
  });

  test('a box that moves leaves its run behind', () => {
    const moved = changed((draft) => void (draft.boxes['box-collector']!.xM! += 0.08));
    expect(raised(moved, 'run.end-off').map(({ message }) => message)).toEqual([
      expect.stringContaining('Over the axle begins 80 mm off Collector box'),
    ]);
  });

  test('what has no place yet is not checked, and never clear', () => {
    const states = (design: Design, rule: string) =>
      evaluate(design).checks.filter(
        (one) => one.rule.id === rule && one.subjects.some((id) => id.startsWith('run-dcdc')),
      );
    const device = changed((draft) => void delete draft.devices['device-dcdc']!.widthM);
    expect(
      states(device, 'run.end-off')
        .map(({ state }) => state)
        .sort(),
    ).toEqual(['clear', 'not-checked']);
    const zone = changed((draft) => void delete draft.zones!['zone-hatch']!.zM);
    expect(states(zone, 'run.forbidden')).toMatchObject([
      { state: 'not-checked', gaps: [{ path: 'zones.zone-hatch.zM' }] },
    ]);
    expect(states(zone, 'run.crush').map(({ state }) => state)).toEqual(['clear']);
    const [through] = states(bus, 'run.through');
    expect(through).toMatchObject({
      state: 'clear',
      values: expect.arrayContaining([expect.objectContaining({ value: 5 })]),
    });
  });

  test('through a zone only outside of the tube counts as bare', () => {
    const crushed = (x: number) =>
      changed((draft) => {
        Object.assign(draft.zones!['zone-bumper']!, {
          xM: x,
          yM: -0.45,
          zM: 0.65,
          lengthM: 0.2,
          widthM: 0.3,
          heightM: 0.3,
        });
      });
    expect(raised(crushed(-0.5), 'run.crush')).toHaveLength(1);
    // There the compressor’s cable lies in its tube: a flexible one is crushed with it, a steel one is not.
    expect(raised(crushed(1.02), 'run.crush').map(({ message }) => message)).toEqual([
      expect.stringContaining('lies in flexible conduit in Behind the rear bumper'),
    ]);
    const tube = (conduit?: 'steel') =>
      changed((draft) => {
        delete draft.runs!['run-compressor']!.conduit;
        if (conduit !== undefined) draft.runs!['run-compressor']!.conduit = conduit;
      }, crushed(1.02));
    expect(raised(tube('steel'), 'run.crush')).toEqual([]);
    expect(
      createEvaluator()
        .evaluate(tube())
        .checks.find(({ key }) => key === 'run.crush|run-compressor'),
    ).toMatchObject({ state: 'not-checked', gaps: [{ path: 'runs.run-compressor.conduit' }] });
  });

  test('a tube hangs lower than its middle by half of what it is thick, and its wall is half of what it has more outside', () => {
    const level = (zM: number) =>
      changed((draft) => {
        for (const point of draft.runs!['run-inlet']!.points!) point.zM = zM;
      });
    // 46 mm outside, 0.15 m asked.
    expect(raised(level(0.174), 'run.low')).toEqual([]);
    expect(raised(level(0.172), 'run.low')[0]!.message).toContain('hangs 0.149 m above the ground');
    const { card } = evaluate(bus).runs['routing.tube:run-inlet/1']!.input as { card: { wallMm: number } };
    expect(card.wallMm).toBe(2);
  });

  test('the cables of a run weigh as many as they are', () => {
    const cable = bus.parts[bus.circuits['circuit-dcdc']!.cable!]!.data as { massKgPerM: number };
    const cut = value(bus, 'routing.run:run-dcdc:cutLengthM')!;
    expect(value(bus, 'routing.run:run-dcdc:cablesKg')).toBeCloseTo(2 * cut * cable.massKgPerM, 9);
  });

  test('a device lies in a box whole, or beside it; of what lies in a box the box is judged', () => {
    const at = (change: (draft: Design) => void, rule: string) =>
      raised(changed(change), rule).map(({ message }) => message);
    const box = bus.boxes['box-tail']!;
    const into =
      (y: number, z = box.zM!) =>
      (draft: Design) =>
        void Object.assign(draft.devices['device-dcdc']!, { xM: box.xM!, yM: y, zM: z });
    expect(at(into(box.yM!), 'run.devices-overlap')).toEqual([]);
    // Least of all along its height of 120 mm.
    expect(at(into(box.yM! + box.widthM! / 2), 'run.devices-overlap')).toEqual([
      `DC-DC to 24 V reaches 120 mm into ${box.tag}.`,
    ]);
    const low = (draft: Design) => {
      into(box.yM!, 0.15)(draft);
      draft.boxes['box-tail']!.zM = 0.15;
    };
    expect(at(low, 'run.device-low')).toEqual([]);
    expect(at(low, 'pack.box-low')).toHaveLength(1);
    // The same beside any box: its lower edge is 6 cm below its middle.
    expect(
      at(
        (draft) => void Object.assign(draft.devices['device-dcdc']!, { yM: 0.85, zM: 0.2 }),
        'run.device-low',
      ),
    ).toEqual(['DC-DC to 24 V ends 0.14 m above the ground; 0.15 m are asked.']);
    expect(at((draft) => void (draft.devices['device-inlet']!.xM = -6.05), 'run.device-outside')[0]).toMatch(
      /m beyond the tail\.$/,
    );
  });

  test('the tube’s bends, fill and pull follow from the run', () => {
    const narrow = changed((draft) => {
      draft.runs![inlet]!.bendRadiusMm = 80;
      draft.runs![inlet]!.conduitInnerMm = 24;
      draft.runs![inlet]!.conduitOuterMm = 28;
    });
    expect(raised(narrow, 'conduit-fit.too-full')).toHaveLength(1);
    expect(raised(narrow, 'bend-card.former')).toHaveLength(1);
    const weak = changed((draft) => void (draft.runs![inlet]!.maxTensionN = 5));
    expect(raised(weak, 'pull.tension')[0]!.message).toContain('Conduit 1 of Over the axle');
  });
});

describe('a hose is a run', () => {
  const hose = 'piece-hose-4';
  const way = 'run-hose-tail';
  const bare = changed((draft) => void delete draft.runs![way]!.cutLengthM);
  const short = changed((draft) => {
    draft.runs![way]!.points![4]!.xM = -1.5;
    draft.joins!['join-pack-back-floor']!.xM = -1.5;
  }, bare);

  test('its length is the hose’s, whatever is typed; as cut counts before as drawn', () => {
    const lengthOf = (design: Design) => laid(design).plumbing![hose]!.lengthM!;
    expect(lengthOf(bus)).toBe(4.2);
    const pathM = value(bare, `routing.run:${way}:pathLengthM`)!;
    const legs = [
      [0, -0.29, -0.02],
      [0.7, 0, -0.02],
      [0.3, -0.18, -0.03],
      [2.7, 0.02, -0.05],
    ];
    const long = (leg: number[]) => Math.hypot(...leg);
    const bends = [1, 2, 3].map((i) =>
      Math.acos(
        legs[i]!.reduce((sum, one, axis) => sum + one * legs[i - 1]![axis]!, 0) /
          (long(legs[i]!) * long(legs[i - 1]!)),
      ),
    );
    expect(pathM).toBeCloseTo(
      legs.reduce((sum, leg) => sum + long(leg), 0) -
        bends.reduce((sum, turn) => sum + 0.17 * (2 * Math.tan(turn / 2) - turn), 0),
      9,
    );
    expect(lengthOf(bare)).toBeCloseTo(pathM * 1.03 + 0.12, 9);
    const typed = changed((draft) => void (draft.plumbing![hose]!.lengthM = 50), bare);
    expect(lengthOf(typed)).toBe(lengthOf(bare));
    const drawnNot = changed((draft) => void delete draft.runs![way]!.points);
    expect(laid(drawnNot).plumbing![hose]).not.toHaveProperty('lengthM');
    expect(lengthOf(short)).toBeCloseTo(lengthOf(bare) - 1.03, 2);
  });

  test('filling and mass follow it', () => {
    const litres = (design: Design) => value(design, 'cooling.fill:loop-pack:volumeL')!;
    const bore = (bus.parts[bus.plumbing![hose]!.hose!]!.data as { innerMm: number }).innerMm;
    const cutM = (design: Design) => laid(design).plumbing![hose]!.lengthM!;
    expect(litres(bare) - litres(short)).toBeCloseTo(
      (Math.PI / 4) * (bore / 100) ** 2 * 10 * (cutM(bare) - cutM(short)),
      6,
    );
    // Weighed with its loop, and not a second time as a run: the coolant in it has 1.0 to 1.1 kg/L.
    const { massKgPerM } = bus.parts[bus.plumbing![hose]!.hose!]!.data as { massKgPerM: number };
    const kg = (design: Design) => value(design, 'vehicle.masses:vehicle:inKg');
    const coolantKg = kg(bare) - kg(short) - massKgPerM * (cutM(bare) - cutM(short));
    expect(coolantKg / (litres(bare) - litres(short))).toBeGreaterThan(1);
    expect(coolantKg / (litres(bare) - litres(short))).toBeLessThan(1.1);
  });

  test('joins that have no place lie at its ends; those that have one are held against them', () => {
    const without = changed((draft) => {
      for (const axis of ['xM', 'yM', 'zM'] as const) delete draft.joins!['join-pack-back-floor']![axis];
    });
    expect(laid(without).joins!['join-pack-back-floor']).toMatchObject({ xM: -0.5, yM: -0.9, zM: 0.5 });
    expect(laid(bus).joins!['join-pack-back-floor']).toBe(bus.joins!['join-pack-back-floor']);
    expect(raised(bus, 'run.hose-off')).toEqual([]);
    const moved = changed((draft) => void (draft.joins!['join-pack-back-floor']!.xM = -0.8));
    expect(raised(moved, 'run.hose-off').map(({ message }) => message)).toEqual([
      'Back from the tail at Floor back: 0.3 m off.',
    ]);
    // Two hoses side by side may flow against each other.
    const pair = changed((draft) => {
      draft.runs![way]!.hoses!.push('piece-hose-9');
      draft.plumbing!['piece-hose-9'] = {
        ...draft.plumbing![hose]!,
        tag: 'Back again',
        from: 'join-pack-back-floor',
        to: 'join-pack-tail-out',
      };
    });
    expect(raised(pair, 'run.hose-off')).toEqual([]);
  });

  test('cables keep away from it, it keeps away from brakes and not from coolant', () => {
    const subjects = evaluate(bus)
      .checks.filter(({ rule }) => rule.id === 'route.separation')
      .map((check) => [...check.subjects].sort().join(' '))
      .filter((one) => one.includes(way));
    expect(subjects.sort()).toEqual(
      [
        `hazard-brake ${way}`,
        `hazard-loom ${way}`,
        `hazard-shaft ${way}`,
        `run-compressor ${way}`,
        `run-dcdc ${way}`,
        `${way} ${inlet}`.split(' ').sort().join(' '),
      ].sort(),
    );
    const across = changed((draft) => {
      draft.runs!['run-dcdc']!.points = [
        { xM: -2.5, yM: -0.4, zM: 0.72, after: 'clipped' },
        { xM: -2.5, yM: -1.2, zM: 0.56 },
        { xM: -3.175, yM: 0.62, zM: 0.66 },
      ];
    });
    const found = raised(across, 'route.separation').filter((one) => one.subjects.includes(way));
    expect(found).toHaveLength(1);
    expect(found[0]!.message).toContain('of Coolant along the right sill (coolant); 50 mm are asked.');
  });

  test('it is clipped and cut like a cable, and has no gland and no neighbour to measure', () => {
    const steps = procedureFor(bus, evaluate(bus)).filter(({ id }) => id.includes(`:${way}`));
    expect(steps.map(({ id }) => id)).toEqual([`run-cut:${way}`, `run-clips:${way}`]);
    expect(steps[0]!.do).toContain('Cut the hose of Coolant along the right sill');
    expect(cutPlaces(bus).find(({ holder }) => holder === way)).toMatchObject({
      name: 'Coolant along the right sill: hose',
      lengthM: 4.2,
    });
    expect(partPlaces(bus).some(({ path }) => path.startsWith(`runs.${way}`))).toBe(false);
  });

  test('what is no hose is carried by no run, and a piece that goes leaves its run', () => {
    const pump = Object.entries(bus.plumbing!).find(([, { kind }]) => kind === 'pump')![0];
    const pumped = checkDesign(changed((draft) => void (draft.runs![way]!.hoses = [pump])));
    expect(pumped.ok ? [] : pumped.issues).toEqual([
      { path: `runs.${way}.hoses.0`, message: 'is a pump, not a hose' },
    ]);
    const gone = changed((draft) => removePiece(draft, hose));
    expect(gone.runs![way]).not.toHaveProperty('hoses');
    expect(checkDesign(gone).ok).toBe(true);
  });
});

describe('what is seen of a run once it lies', () => {
  const stepsOf = (design: Design) => procedureFor(design, evaluate(design));
  const step = (id: string, design = bus) => stepsOf(design).find((one) => one.id === id);
  const range = (id: string, design = bus) => {
    const expected = step(id, design)?.expected;
    return expected?.kind === 'range' ? expected : null;
  };

  test('lines within three times what is asked are measured, others are not', () => {
    const near = stepsOf(bus).filter(({ id }) => id.startsWith('run-near:'));
    expect(near.map(({ id }) => id)).toEqual([
      'run-near:run-dcdc/hazard-shaft',
      'run-near:run-compressor/hazard-brake',
    ]);
    expect(range('run-near:run-compressor/hazard-brake')).toMatchObject({ min: 50, unit: 'mm' });
    expect(range('run-near:run-compressor/hazard-brake')!.nominal).toBeCloseTo(66.96, 2);
    const wider = changed((draft) => void (draft.hazards!['hazard-brake']!.minSeparationMm = 60));
    expect(range('run-near:run-dcdc/hazard-brake', wider)).toMatchObject({ min: 60 });
  });

  test('clips, tube and ends by the design’s own figures; what is missing is said', () => {
    expect(range('run-clips:run-dcdc')).toMatchObject({ max: 250, unit: 'mm' });
    const close = changed((draft) => void (draft.runs!['run-dcdc']!.clipSpacingMm = 180));
    expect(range('run-clips:run-dcdc', close)!.max).toBe(180);
    expect(step(`run-clips:${inlet}`)).toBeUndefined();
    expect(range(`run-tube:${inlet}`)!.min).toBeCloseTo(0.8 * 42, 9);
    expect(range(`run-tube:${inlet}`)!.max).toBe(42);
    expect(step('run-tube:run-dcdc')).toBeUndefined();
    expect(range(`run-ends:${inlet}`)).toMatchObject({ min: 0, max: 2, unit: 'mm' });
    expect(step(`run-ends:${inlet}`)!.do).toContain('At Collector box and at');
    const bare = changed((draft) => {
      delete draft.runs![inlet]!.to;
      delete draft.runs![inlet]!.conduitInnerMm;
    });
    expect(step(`run-ends:${inlet}`, bare)!.gaps).toEqual([
      { kind: 'not-given', path: `runs.${inlet}.to`, label: 'where Over the axle ends' },
    ]);
    expect(step(`run-tube:${inlet}`, bare)!.expected).toBeNull();
  });

  test('where way or line are not drawn nobody knows that it is far: that is said, and not left out', () => {
    const undrawn = changed((draft) => {
      delete draft.runs!['run-dcdc']!.points;
      delete draft.hazards!['hazard-coolant']!.points;
    });
    const unknown = stepsOf(undrawn).filter(
      ({ id, expected }) => id.startsWith('run-near:') && expected === null,
    );
    expect(unknown.map(({ id, gaps }) => [id, gaps.map((gap) => 'path' in gap && gap.path)])).toEqual([
      ['run-near:run-inlet/hazard-coolant', ['hazards.hazard-coolant.points']],
      ...Object.keys(bus.hazards!).map((line) => [`run-near:run-dcdc/${line}`, ['runs.run-dcdc.points']]),
      ['run-near:run-dcdc/run-hose-tail', ['runs.run-dcdc.points']],
      ['run-near:run-compressor/hazard-coolant', ['hazards.hazard-coolant.points']],
    ]);
  });

  test('as cut: at least its way, and no gate waits for it', () => {
    const cut = step(`run-cut:${inlet}`)!;
    expect(cut).toMatchObject({ optional: true, gate: 'wiring' });
    expect(range(cut.id)!.min).toBeCloseTo(0.98 * value(bus, `routing.run:${inlet}:pathLengthM`), 9);
    expect(cut.do).toContain('the 2 conductors');
  });
});
