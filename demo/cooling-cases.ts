import type { Design } from '@torvek/core/document';
import { catalogueOf } from '@torvek/core/parts';
import { pin } from '@torvek/core/pack';

const piece = (draft: Design, id: string) => draft.plumbing![`piece-${id}`]!;
const join = (draft: Design, id: string) => draft.joins![`join-${id}`]!;
const box = (draft: Design) => draft.boxes['box-nose']!;
const heater = (draft: Design, id: string) => {
  box(draft).heater = pin(
    draft,
    catalogueOf('heater').find((part) => part.id === id)!,
  );
  return draft;
};
/** A hose between two joins of the pack loop. */
const hose = (draft: Design, from: string, to: string, lengthM = 0.4) => {
  draft.plumbing!['piece-extra'] = {
    tag: 'Extra hose',
    loop: 'loop-pack',
    kind: 'hose',
    from: `join-pack-${from}`,
    to: `join-pack-${to}`,
    hose: 'wendover-h25@1',
    lengthM,
  };
};

/** For each rule of cooling that the evaluation can raise: what is wrong about the bus when it is raised. */
export const wrongCooling: Record<string, (draft: Design) => void> = {
  'cooling.heater-no-branch': (draft) => void delete piece(draft, 'heater').heaterDevice,
  'cooling.port': (draft) => {
    hose(draft, 'pump', 'radiator');
    draft.plumbing!['piece-extra']!.hose = pin(
      draft,
      catalogueOf('hose').find(({ data }) => data.innerMm === 19)!,
    );
  },
  'cooling.cools-nothing': (draft) => void (piece(draft, 'plate-nose-1').modules = []),
  'cooling.cabin-cold': (draft) => void (draft.cabin!.bodyM2 = 90),
  'cooling.screen-mists': (draft) => void (draft.cabin!.people = 14),
  'cooling.cabin-heat-said': (draft) => void (draft.vehicle.cabinHeatW = 900),
  'cooling.no-pump': (draft) => void delete draft.plumbing!['piece-drive-pump'],
  'cooling.stands': (draft) => void (piece(draft, 'throttle-tail').openFraction = 0),
  'cooling.by-core': (draft) => {
    const radiator = piece(draft, 'radiator');
    delete radiator.radiator;
    Object.assign(radiator, { kPaPerLpm: 0.06, coreWidthMm: 900, coreHeightMm: 520, coreDepthMm: 48 });
  },
  'cooling.no-way-out': (draft) => void (piece(draft, 'radiator').switched = 'driving'),
  'cooling.coolant-hot': (draft) => void (draft.cooling!.hotC = 48),
  'cooling.cells-hot': (draft) => {
    draft.cooling!.hotC = 42;
    piece(draft, 'plate-nose-1').fillerMm = 9;
    piece(draft, 'plate-nose-1').fillerWPerMK = 0.2;
  },
  'cooling.wrong-loop': (draft) => void (piece(draft, 'drive-hose').to = 'join-pack-radiator'),
  'cooling.flow-unnoticed': (draft) => void (draft.loops!['loop-pack']!.lostFlow = 'nobody'),
  'cooling.coolant-unnoticed': (draft) => void (draft.loops!['loop-pack']!.lostCoolant = 'nobody'),
  'cooling.dead-end': (draft) => {
    draft.joins!['join-pack-end'] = { tag: 'End', loop: 'loop-pack', xM: 0, yM: 0, zM: 0.5 };
    hose(draft, 'tee-nose', 'end');
  },
  'cooling.pump-into-tank': (draft) => {
    const pump = piece(draft, 'pump');
    [pump.from, pump.to] = [pump.to!, pump.from!];
  },
  'cooling.module-twice': (draft) => void piece(draft, 'plate-nose-1').modules!.push('module-103'),
  'cooling.other-box': (draft) => void piece(draft, 'plate-nose-1').modules!.push('module-103'),
  'cooling.school': (draft) => void (draft.cooling!.school = 'one loop'),
  'cooling.join-out': (draft) => void (join(draft, 'pack-tee-floor').zM = 0.05),
  'cooling.part-hot': (draft) => void (piece(draft, 'inverter').coolantMaxC = 40),
  'cooling.least-flow': (draft) => void (piece(draft, 'inverter').leastLPerMin = 14),
  'cooling.left-out': (draft) => void piece(draft, 'plate-nose-1').modules!.pop(),
  'cooling.drive-hot': (draft) => {
    draft.cooling!.startC = 44;
    draft.cooling!.hotC = 44;
    draft.cooling!.onAboveC = 50;
  },
  // Cool on the first day; warm nights bring it to where the coolant holds it.
  'cooling.days-hot': (draft) => {
    Object.assign(draft.cooling!, { startC: 0, nightC: 30, cellMaxC: 34 });
  },
  'cooling.charge-hot': (draft) => {
    draft.cooling!.startC = 44.5;
    draft.cooling!.hotC = 44.5;
    draft.cooling!.repeats = 1;
    draft.cooling!.onAboveC = 60;
  },
  'cooling.warms': (draft) => {
    draft.cooling!.onAboveC = 30;
    draft.cooling!.offBelowC = 28;
  },
  'cooling.cold-charge': (draft) => void delete draft.plumbing!['piece-heater'],
  'cooling.heater-stops': (draft) => {
    const part = draft.parts['emberley-e3@1'];
    if (part?.kind === 'heater') part.data.ratedMinV = 350;
  },
  'cooling.no-bleed': (draft) => void delete join(draft, 'pack-nose-out').bleed,
  'cooling.tank-low': (draft) => void (join(draft, 'pack-tank').zM = 0.9),
  'cooling.no-tank': (draft) => void delete draft.loops!['loop-drive']!.tank,
  'cooling.freezes': (draft) => void (draft.cooling!.coldC = -33),
  'cooling.over-hv': (draft) => {
    const end = draft.runs!['run-dcdc']!.points!.at(-1)!;
    Object.assign(join(draft, 'drive-inverter'), { xM: end.xM, yM: end.yM });
  },
  'cooling.vent-cabin': (draft) => void (box(draft).ventTo = 'cabin'),
  'cooling.fan-sealed': (draft) => {
    box(draft).fan = 'galewood-f305-24@1';
    box(draft).vent = 'none';
  },
  'cooling.unfit-readings': (draft) => {
    piece(draft, 'plate-nose-1').readings = [
      [1, 2],
      [2, 3],
      [3, 30],
    ];
  },
  'hydraulic.pump-beyond': (draft) => {
    for (const [id, one] of Object.entries(draft.plumbing!))
      if (one.loop === 'loop-pack' && one.kind !== 'pump' && one.kind !== 'radiator')
        delete draft.plumbing![id];
    hose(draft, 'pump', 'radiator');
    Object.assign(piece(draft, 'radiator'), { kPaPerLpm: 0.001, kPaPerLpm2: 0 });
  },
  'hydraulic.pump-backward': (draft) => {
    // A weak pump beside the strong one.
    draft.plumbing!['piece-weak'] = {
      ...piece(draft, 'pump'),
      tag: 'Weak pump',
      pump: pin(
        draft,
        catalogueOf('pump').find(({ id }) => id === 'tarnbeck-b5')!,
      ),
    };
  },
  'hydraulic.node-apart': (draft) => {
    draft.joins!['join-far'] = { tag: 'Far end', loop: 'loop-pack' };
    draft.plumbing!['piece-far'] = {
      tag: 'Shut tap',
      loop: 'loop-pack',
      kind: 'valve',
      from: 'join-pack-pump',
      to: 'join-far',
      kvM3PerH: 1,
      openFraction: 0,
    };
  },
  'loop-balance.bypass': (draft) => hose(draft, 'warm', 'radiator'),
  'loop-balance.starved': (draft) => void (piece(draft, 'throttle-tail').openFraction = 0.03),
  'loop-balance.imbalance': (draft) => void (piece(draft, 'throttle-tail').openFraction = 0.3),
  'warm-up.never': (draft) => {
    const part = draft.parts['emberley-e3@1'];
    if (part?.kind === 'heater') part.data.ratedW = 60;
  },
  'heater-at-voltage.over-voltage': (draft) => void heater(draft, 'emberley-m150'),
  'expansion.tank': (draft) => void (draft.loops!['loop-pack']!.tankL = 0.2),
};

/** Where the bus has nothing to judge: how it is clear. */
export const rightCooling: Record<string, (draft: Design) => void> = {
  'cooling.port': (draft) => hose(draft, 'pump', 'radiator'),
  'cooling.fan-sealed': (draft) => void (box(draft).fan = 'galewood-f305-24@1'),
  'cooling.unfit-readings': (draft) => {
    piece(draft, 'plate-nose-1').readings = [
      [1, 2],
      [2, 5],
      [3, 9],
    ];
  },
};

const pumpOf = (from: string, to: string) => ({
  id: 'pump',
  kind: 'pump',
  from,
  to,
  curve: [
    [0, 40],
    [20, 10],
  ],
});
const load = (id: string, from: string, to: string) => ({ id, kind: 'fixed', from, to, kPaPerLpm: 1 });
const held = {
  startKPaGauge: 100,
  endKPaGauge: 99.5,
  startC: 20,
  endC: 20,
  minutes: 30,
  volumeL: 2,
  allowedDropKPa: 1,
};
const heats = (maxC: number, airInC = 30) => ({
  fluid: {},
  flowLPerMin: 10,
  heatLoads: [{ id: 'a', heatW: 1000, resistanceKPerW: 0.01 }],
  radiator: { uaWPerK: 200, airFlowKgPerS: 0.3, airInC },
  limits: [{ id: 'a', maxC }],
});
const rated = { ratedW: 400, ratedMinV: 200, busV: 220, kind: 'resistive' };

const taps = (...measuredV: number[]) => ({ cells: measuredV.length, cellMinV: 3, cellMaxV: 4.2, measuredV });
const bleeds = (bleedA: number) => ({
  boxes: [{ id: 'X', modules: [{ cells: 12, sensors: 2 }] }],
  leadLimitA: 0.25,
  options: [{ id: 'o', kind: 'split', channelsPerUnit: 12, bleedA, unitWiresOut: 4 }],
});

/** Rules that calculators alone raise: a body that raises each, and one that does not. */
export const coolingCalculators: Record<string, [calculator: string, wrong: object, right: object | null]> = {
  'loop-balance.no-throttle': [
    'loop-balance',
    {
      fluid: { temperatureC: 20 },
      elements: [pumpOf('a', 'b'), load('one1', 'b', 'c'), load('two2', 'c', 'a')],
      branches: ['one1', 'two2'],
    },
    {
      fluid: { temperatureC: 20 },
      elements: [pumpOf('a', 'b'), load('one1', 'b', 'a'), load('two2', 'b', 'a')],
      branches: ['one1', 'two2'],
    },
  ],
  'loop-thermal.limit': ['loop-thermal', heats(40), heats(80)],
  'loop-thermal.outside-table': ['loop-thermal', heats(200, 95), heats(200)],
  'heater-at-voltage.bare-element': [
    'heater-at-voltage',
    { ...rated, ratedMaxV: 250 },
    { ...rated, ratedMaxV: 250, kind: 'ptc' },
  ],
  'leak-test.leaks': ['leak-test', { ...held, endKPaGauge: 98 }, held],
  'leak-test.too-short': ['leak-test', { ...held, minutes: 10 }, held],
  'leak-test.pressure-rises': ['leak-test', { ...held, endKPaGauge: 102 }, held],
  'ladder-check.wiring': ['ladder-check', taps(3.6, 10.8, 7.2, 14.4), taps(3.6, 7.2, 10.8, 14.4)],
  'ladder-check.cell': ['ladder-check', taps(3.6, 7.2, 9.9, 13.5), taps(3.6, 7.2, 10.8, 14.4)],
  'topology-compare.bleed-over-lead': ['topology-compare', bleeds(0.3), bleeds(0.2)],
};
