import { coolingCalculators } from './cooling-cases';
import { describe, expect, test } from '@jest/globals';
import { calculators } from '@torvek/core/calculators';
import { createEvaluator } from '@torvek/core/design';
import { mainCircuit, type Design } from '@torvek/core/document';
import { allRules } from '@torvek/core/finding';
import { shapePack } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import type { Evaluation } from '@torvek/core/step';
import { libraryBus } from './library-bus';
import { changed, circuit, right, wrong } from './rule-cases';

/** The bus as it is, and each changed one, is evaluated once. */
const kept = new WeakMap<Design, Evaluation>();
const evaluator = createEvaluator();
const evaluate = (design: Design) => {
  const found = kept.get(design) ?? evaluator.evaluate(design);
  kept.set(design, found);
  return found;
};
let made = 0;
const newId = (prefix: string) => `${prefix}-t${(made += 1)}`;

/** Rules that hold at every pack. */
const alwaysRaised = ['pack.ten-second-resistance'];

const string = (id: string, volts: number, fused: boolean) => [
  { id, kind: 'module', a: 'n', b: `${id}+`, voltageV: volts, reach: 'box', resistanceOhm: 0.02 },
  {
    id: `${id}F`,
    kind: fused ? 'fuse' : 'link',
    a: `${id}+`,
    b: 'p',
    closed: true,
    reach: 'box',
    resistanceOhm: 0.001,
  },
];
const load = { id: 'INV', kind: 'load', a: 'n', b: 'p', reach: 'car' };
const withoutOhms = (elements: object[]) =>
  elements.map((one) => Object.fromEntries(Object.entries(one).filter(([key]) => key !== 'resistanceOhm')));
const match = (deltaV: number, lowestCellV = 3) => ({
  a: { voltageV: 360 + deltaV, resistanceOhm: 0.1, capacityAh: 60 },
  b: { voltageV: 360, resistanceOhm: 0.1, capacityAh: 60 },
  linkResistanceOhm: 0,
  currentLimitA: 60,
  series: 96,
  ocvTable: [
    [0, lowestCellV],
    [1, 4.2],
  ],
});
const rest = (volts: (hours: number) => number) => ({
  samples: [0.5, 1, 2, 3, 4, 5, 6, 8].map((hours) => [hours, volts(hours)]),
  targetV: 2.9,
  toleranceV: 0.04,
});
const settling = rest((hours) => 2.92 - 0.2 * Math.exp(-Math.sqrt(hours / 3)));
const bleed = (leadLimitA: number) => ({
  cells: [{ id: 'c1', socFraction: 0.9 }],
  capacityAh: 60,
  school: 'top',
  bleedCurrentA: 0.2,
  dutyFraction: 1,
  leadLimitA,
});

const run = (change: object = {}) => ({
  points: [
    [0, 0, 0],
    [1, 0, 0],
    [1, 0.5, 0],
    [2, 0.5, 0],
  ],
  bendRadiusMm: 100,
  cable: { outerDiameterMm: 15 },
  ...change,
});
const line = (minSeparationMm: number) => ({
  hazards: [
    {
      id: 'brake',
      kind: 'brake',
      points: [
        [0, 0, 0.1],
        [1, 0, 0.1],
      ],
      minSeparationMm,
    },
  ],
});
const tube = (centrelineRadiusMm: number, wallMm = 2) => ({
  points: run().points,
  centrelineRadiusMm,
  tubeOuterMm: 25,
  wallMm,
});
const conduit = (diameters: number[], change: object = {}) => ({
  innerDiameterMm: 40,
  cables: diameters.map((outerDiameterMm) => ({ outerDiameterMm })),
  totalBendDeg: 180,
  minCableRadiusMm: 60,
  ...change,
});
const pulled = (change: object) => ({
  sections: [
    { kind: 'straight', lengthM: 10 },
    { kind: 'bend', angleDeg: 90, radiusMm: 150 },
  ],
  cableKgPerM: 1,
  maxTensionN: 200,
  maxSidewallNPerM: 1000,
  ...change,
});
const reelOf = (cuts: number) => ({
  reels: [{ id: 'a', lengthM: 10 }],
  cuts: Array.from({ length: cuts }, (_, i) => ({ id: `c${i}`, lengthM: 0.5 })),
});
/** A body that raises a rule, and one that does not. */
const routing: Record<string, [calculator: string, wrong: object, right: object | null]> = {
  'route.leg-too-short': ['route', run({ bendRadiusMm: 260 }), run({ bendRadiusMm: 250 })],
  'route.radius': ['route', run({ bendRadiusMm: 74 }), run({ bendRadiusMm: 75 })],
  'route.separation': ['route', run(line(92.6)), run(line(92.4))],
  'bend-card.former': ['bend-card', tube(100), tube(101)],
  'bend-card.kink': ['bend-card', tube(49), tube(50)],
  'conduit-fit.too-full': ['conduit-fit', conduit([30]), conduit([29])],
  'conduit-fit.jam': ['conduit-fit', conduit([14, 14, 14]), conduit([14, 14])],
  'conduit-fit.too-many-bends': [
    'conduit-fit',
    conduit([14], { totalBendDeg: 361 }),
    conduit([14], { totalBendDeg: 360 }),
  ],
  'conduit-fit.elbow-radius': [
    'conduit-fit',
    conduit([20], { elbowRadiusMm: 69 }),
    conduit([20], { elbowRadiusMm: 70 }),
  ],
  'conduit-fit.lug-does-not-pass': [
    'conduit-fit',
    conduit([20], { lugWidthMm: 41 }),
    conduit([20], { lugWidthMm: 39 }),
  ],
  'pull.tension': ['pull', pulled({ maxTensionN: 40 }), pulled({})],
  'pull.sidewall': ['pull', pulled({ incomingN: 40, maxSidewallNPerM: 300 }), pulled({})],
  'cut-plan.unplaced': ['cut-plan', reelOf(25), reelOf(10)],
  'cut-plan.not-exact': ['cut-plan', reelOf(16), reelOf(15)],
};

/** Rules that belong to a calculator only: a body that raises it, and one that does not (null: it always stands). */
const calculatorOnly: Record<string, [calculator: string, wrong: object, right: object | null]> = {
  ...coolingCalculators,
  'balance-time.where-compared': ['balance-time', bleed(0.2), null],
  'live-map.conflict': [
    'live-map',
    { elements: withoutOhms([...string('A', 100, true), ...string('B', 105, true)]) },
    { elements: withoutOhms([...string('A', 100, true), ...string('B', 100, true)]) },
  ],
  'parallel-match.beyond-table': ['parallel-match', match(5, 3.9), match(5)],
  'parallel-match.current-over-limit': ['parallel-match', match(13), match(11)],
  'path-faults.unprotected': [
    'path-faults',
    { elements: [...string('A', 100, true), ...string('B', 100, false), load], from: 'INV' },
    { elements: [...string('A', 100, true), ...string('B', 100, true), load], from: 'INV' },
  ],
  ...routing,
  'rest-predict.on-bound': ['rest-predict', rest((hours) => 2.7 + Math.sqrt(hours) / 1000), settling],
  'rest-predict.flat': ['rest-predict', rest(() => 2.9), settling],
  'segments.module-over-limit': ['segments', { moduleMaxV: [30, 61] }, { moduleMaxV: [30, 60] }],
  'segments.kept-run-over-limit': [
    'segments',
    { moduleMaxV: [40, 40], keepClosed: [1] },
    { moduleMaxV: [40, 20], keepClosed: [1] },
  ],
};
/** Tested beside its calculator. */
const testedElsewhere = [
  'built.serial-twice',
  // Said of anything, and only where there is something to say: the collection of mistakes.
  ...['vehicle', 'pack', 'network', 'protect', 'run', 'cooling', 'charge', 'monitoring'].flatMap((at) => [
    `${at}.contradiction`,
    `${at}.unusual`,
    `${at}.cold-ambient`,
  ]),
  // No network is known that raises it: what random ones leave is held against it.
  'hydraulic.unsolved',
  'library.newer-revision',
  'library.impossible-data',
  'cooling.for-now',
  'precharge-fit.on-bound',
  'joints.outlier',
  'joints.over-limit',
  'joints.torque-off',
  'joints.retorque-due',
  'bonding.measured',
  'built.other-part',
  'built.other-length',
  'built.unread',
  'intake.off-batch',
  'intake.loses-charge',
  'intake.unsound',
  'stock.serial-twice',
  'stock.unfit-fitted',
  'stock.suspect-fitted',
  'stock.other-kind',
  'stock.nothing-fitted',
  'stock.before-coat',
];

/** What the circuits of a design that lacks everything do not have. */
const emptied = [
  'contactor',
  'prechargeContactor',
  'plug',
  'lug',
  'gland',
  'cable',
  'screened',
  'sheath',
] as const;

const stateOf = (design: Design, rule: string) => {
  const states = evaluate(design)
    .checks.filter((check) => check.rule.id === rule)
    .map(({ state }) => state);
  return states.includes('raised')
    ? 'raised'
    : states.includes('not-checked')
      ? 'not checked'
      : states.length > 0
        ? 'clear'
        : 'absent';
};

describe('the register of rules', () => {
  test('this table covers every rule there is', () => {
    expect(calculators.size).toBeGreaterThanOrEqual(10);
    expect([...Object.keys(wrong), ...Object.keys(calculatorOnly), ...testedElsewhere].sort()).toEqual(
      allRules().map(({ id }) => id),
    );
  });

  test('every rule says why, what to do and where it comes from, and never that something is safe', () => {
    for (const { id, title, why, remedy, source } of allRules()) {
      for (const text of [title, why, remedy, source]) {
        expect([id, text.length > 8]).toEqual([id, true]);
        expect([id, /\bsafe\b/i.test(text)]).toEqual([id, false]);
      }
    }
  });
});

test.each(Object.entries(calculatorOnly))(
  '%s is raised by its calculator where it should be',
  (rule, example) => {
    const [name, bad, good] = example;
    const raised = (body: object) => {
      const answer = calculators.get(name)!.answer(body);
      if (!answer.ok) throw new Error(JSON.stringify(answer.issues));
      return answer.answer.findings.some((finding) => finding.rule === rule && /\d/.test(finding.message));
    };
    expect(raised(bad)).toBe(true);
    if (good !== null) expect(raised(good)).toBe(false);
  },
);

/** The bus without anything that a rule needs to judge by. */
const empty = changed((draft) => {
  for (const key of Object.keys(draft.vehicle)) delete (draft.vehicle as Record<string, unknown>)[key];
  draft.strings = {};
  draft.boxes = Object.fromEntries(Object.entries(draft.boxes).map(([id, { tag }]) => [id, { tag }]));
  circuit(draft).loadProfile = [];
  for (const field of ['balance', 'leads', 'sense', 'regenPeakA'] as const) delete draft.pack[field];
  draft.pack.busbars = {};
  draft.joints = {};
  draft.plumbing = {};
  delete draft.cooling!.school;
  draft.joins = {};
  for (const loop of Object.values(draft.loops!)) {
    delete loop.tank;
    delete loop.lostFlow;
    delete loop.lostCoolant;
  }
  draft.bonds = {};
  for (const map of [
    'supplies',
    'inlets',
    'cuts',
    'limits',
    'thresholds',
    'lowVoltage',
    'loads',
    'services',
    'ends',
    'bundles',
    'adapters',
    'colours',
    'wires',
    'sensing',
    'boards',
    'sensors',
    'currentSensors',
    'senseWires',
  ] as const)
    delete draft[map];
  for (const run of Object.values(draft.runs!)) {
    delete run.points;
    delete run.circuits;
    delete run.hoses;
  }
  Object.assign(draft.settings, { senseMarking: 'sleeve' });
  for (const device of Object.values(draft.devices))
    for (const field of [
      'busCapacitanceF',
      'isolation',
      'unattended',
      'thermalCut',
      'minV',
      'maxV',
      'xM',
    ] as const)
      delete device[field];
  for (const one of Object.values(draft.circuits)) {
    for (const field of emptied) delete one[field];
  }
});

describe.each(Object.keys(wrong))('%s', (rule) => {
  test('is raised where it should be, with its message in numbers', () => {
    const design = changed(wrong[rule]!);
    expect(stateOf(design, rule)).toBe('raised');
    const check = evaluate(design).checks.find((one) => one.rule.id === rule && one.state === 'raised');
    expect(check?.state === 'raised' && /\d/.test(check.message)).toBe(true);
  });

  test(alwaysRaised.includes(rule) ? 'stands with every pack' : 'is clear where nothing is wrong', () => {
    const recipe = right[rule];
    const design = recipe === undefined ? libraryBus.design : changed(recipe);
    expect(stateOf(design, rule)).toBe(alwaysRaised.includes(rule) ? 'raised' : 'clear');
  });

  test('is not checked, and no guess made, in a design that lacks what it needs', () => {
    expect(['not checked', 'absent']).toContain(stateOf(empty, rule));
  });
});

test('no two checks of a design bear one key', () => {
  const designs = [libraryBus.design, empty, ...Object.values(wrong).map((recipe) => changed(recipe))];
  for (const design of designs) {
    const keys = evaluate(design).checks.map(({ key }) => key);
    expect(keys.filter((key, i) => keys.indexOf(key) !== i)).toEqual([]);
  }
});

test('a pack of another kind keeps every choice as it was', () => {
  const design = changed((draft) =>
    shapePack(draft, { strings: 1, modulesPerString: 30, part: catalogueOf('module')[4]! }, newId),
  );
  const { contactor, resistor, fuse, cable } = design.circuits[mainCircuit]!;
  expect([contactor, resistor, fuse, cable]).toEqual([
    'hollin-k350@1',
    'ember-82@1',
    'calderside-f350@1',
    'marl-x70@1',
  ]);
});
