import type { Id } from '../../../model/document';
import { figureId } from '../../../ground/figure';
import { holdLimitKPa, testOf } from '../fill-step';
import type { LoopAnswer } from '../loop-answer';
import { postureOf } from '../posture';
import { plumbingToday } from '../present-step';
import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';
import { lessFlow } from './causes';

const templates = defineTemplates({
  'leak-plate': {},
  'leak-box': {},
  'leak-loop': {},
  'fill-loop': {},
  'flow-loop': { causes: (of, value) => lessFlow(of, value, (wanted) => value / wanted) },
  // Less flow, and it comes out warmer.
  'warm-box': { causes: (of, value) => lessFlow(of, value, (wanted) => wanted / value) },
});

/** A plate on the bench is held so long, min, and may fall by so much, kPa. */
const plateTest = { minutes: 30, dropKPa: 1 };
/** Flow as seen may differ from what is computed by this share: a clamp-on meter, real bends. */
const flowWithinFraction = 0.2;
/** Filled within this share of what its parts hold. */
const filledWithinFraction = 0.12;
/** Coolant may rise by so much more over a box than is computed, K: what probes tell apart, and modules that differ. */
const riseReserveK = 2;
/** Current and rise may move by this share before temperatures are due again. */
const warmWithinFraction = 0.05;
/** Hose and gauge of the leak bench, L. */
const benchL = 0.15;

/** Leak tests in stages, filling, flow, and temperatures under load. */
function coolant(builder: Builder): void {
  const { design } = builder;
  for (const [id, piece] of Object.entries(design.plumbing ?? {}))
    if (piece.kind === 'plate') plateLeak(builder, id);
  for (const box of boxesWithPlates(builder)) boxLeak(builder, box);
  for (const loop of Object.keys(design.loops ?? {})) {
    loopLeak(builder, loop);
    filling(builder, loop);
    flowSeen(builder, loop);
  }
}

/** What coolant does once the vehicle draws power. */
function coolantUnderLoad(builder: Builder): void {
  for (const box of boxesWithPlates(builder)) warmBox(builder, box);
}

const platesOf = ({ design }: Builder, box: Id): Id[] =>
  Object.entries(design.plumbing ?? {}).flatMap(([id, { kind, modules = [] }]) =>
    kind === 'plate' && modules.some((module) => design.modules[module]?.box === box) ? [id] : [],
  );

const boxesWithPlates = (builder: Builder): Id[] =>
  Object.keys(builder.design.boxes).filter((box) => platesOf(builder, box).length > 0);

const isForNow = ({ design }: Builder, loop: Id): boolean =>
  Object.values(design.standIns ?? {}).some((one) => one.loop === loop);
/** What is read of a loop is that of the plumbing as it stands: with stand-ins their figures count. */
const asItStands = (builder: Builder, loop: Id, name: 'flowLPerMin' | 'volumeL') =>
  builder.figures(
    isForNow(builder, loop)
      ? figureId('cooling.present', loop, name)
      : name === 'volumeL'
        ? figureId('cooling.fill', loop, name)
        : figureId('cooling.loop', loop, name),
  );
const forNowWords = (builder: Builder, loop: Id) =>
  isForNow(builder, loop)
    ? ' As it stands today, with what stands in for pieces that are not there yet.'
    : '';

const piecesOfLoop = ({ design }: Builder, loop: Id): Id[] => [
  ...Object.entries(plumbingToday(design.plumbing, design.standIns, loop)).flatMap(([id, piece]) =>
    piece.loop === loop ? [id] : [],
  ),
];

/** What a plate holds, L; null: its part is not named. */
function plateL({ design }: Builder, id: Id): number | null {
  const part = design.parts[design.plumbing?.[id]?.plate ?? ''];
  return part?.kind === 'plate' ? part.data.volumeL : null;
}

const pressing = { gate: 'coolant', hazard: 'pressure', instrument: 'leak-bench' } as const;
const watched =
  'Press it up, let it settle for ten minutes, read pressure and temperature of the part, hold, read both again. A drop is judged once corrected for temperature and weather.';

function plateLeak(builder: Builder, id: Id): void {
  const { design } = builder;
  const piece = design.plumbing![id]!;
  const part = design.parts[piece.plate ?? ''];
  const test = testOf(design.loops?.[piece.loop ?? ''] ?? { tag: '' });
  const volumeL = plateL(builder, id);
  const testKPa = Math.min(test.testKPa, part?.kind === 'plate' ? part.data.testKPa : Infinity);
  builder.add({
    ...pressing,
    template: templates['leak-plate'],
    of: id,
    title: `Leak test of ${piece.tag}, on the bench`,
    do: `Before any module lies on it: close one port of ${piece.tag}. ${watched}`,
    why: 'Once modules are on it, a plate that leaks is found by what it has ruined.',
    subjects: [{ id, tag: piece.tag }],
    touchedBy: [id, ...(piece.modules ?? [])],
    range: {
      kind: 'hold',
      testKPa,
      minutes: plateTest.minutes,
      allowedDropKPa: plateTest.dropKPa,
      volumeL: (volumeL ?? 0) + benchL,
      unit: 'kPa',
    },
    gaps:
      volumeL === null
        ? [{ kind: 'not-given', path: `plumbing.${id}.plate`, label: `kind of ${piece.tag}` }]
        : [],
    basis: [
      builder.row(`leak:${id}:testKPa`, `test pressure of ${piece.tag}`, testKPa, 'kPa'),
      builder.row(`leak:${id}:volumeL`, `volume of ${piece.tag}`, volumeL ?? 0, 'L'),
    ],
  });
}

function boxLeak(builder: Builder, box: Id): void {
  const { design } = builder;
  const { tag } = design.boxes[box]!;
  const plates = platesOf(builder, box);
  const loop = design.plumbing![plates[0]!]!.loop ?? '';
  const test = testOf(design.loops?.[loop] ?? { tag: '' });
  const volumes = plates.map((id) => plateL(builder, id));
  const testKPa = Math.min(test.testKPa, ...plates.map((id) => holdLimitKPa(design, id)));
  const volumeL = volumes.reduce<number>((sum, own) => sum + (own ?? 0), benchL);
  builder.add({
    ...pressing,
    template: templates['leak-box'],
    of: box,
    title: `Leak test of ${tag}, assembled`,
    do: `Plates, headers and clamps of ${tag} in place, clamps tightened and marked before anything hides them. ${watched}`,
    why: 'Most leaks are at clamps and nipples, made when the box was put together.',
    subjects: [{ id: box, tag }],
    touchedBy: [
      box,
      ...plates,
      ...Object.keys(design.modules).filter((id) => design.modules[id]!.box === box),
    ],
    range: {
      kind: 'hold',
      testKPa,
      minutes: test.testMinutes,
      allowedDropKPa: test.testDropKPa,
      volumeL,
      unit: 'kPa',
    },
    gaps: volumes.includes(null)
      ? [{ kind: 'not-given', path: `boxes.${box}`, label: `volume of the plates in ${tag}` }]
      : [],
    basis: [
      builder.row(`leak:${box}:testKPa`, `test pressure of ${tag}`, testKPa, 'kPa'),
      builder.row(`leak:${box}:volumeL`, `volume of ${tag}`, volumeL, 'L'),
    ],
  });
}

/** Pieces that are opened when they are worked on; a throttle is only turned. */
const opened = (builder: Builder, loop: Id): Id[] =>
  piecesOfLoop(builder, loop).filter((id) => builder.design.plumbing?.[id]?.kind !== 'valve');

function loopLeak(builder: Builder, loop: Id): void {
  const { design } = builder;
  const own = design.loops![loop]!;
  const test = testOf(own);
  const pieces = opened(builder, loop);
  const volume = asItStands(builder, loop, 'volumeL');
  const today = { ...design, plumbing: plumbingToday(design.plumbing, design.standIns, loop) };
  const testKPa = Math.min(test.testKPa, ...pieces.map((id) => holdLimitKPa(today, id)));
  builder.add({
    ...pressing,
    template: templates['leak-loop'],
    of: loop,
    title: `Leak test of ${own.tag}, in the vehicle`,
    do: `All of ${own.tag} connected, every clamp tightened, marked and seen.${forNowWords(builder, loop)} ${watched}`,
    why: 'Coolant on live parts conducts: nothing is filled that does not hold air.',
    subjects: [{ id: loop, tag: own.tag }],
    touchedBy: [loop, ...pieces],
    range: {
      kind: 'hold',
      testKPa,
      minutes: test.testMinutes,
      allowedDropKPa: test.testDropKPa,
      volumeL: volume.values[0]! + benchL,
      unit: 'kPa',
    },
    gaps: volume.gaps,
    basis: [
      ...volume.basis,
      builder.row(`leak:${loop}:testKPa`, `test pressure of ${own.tag}`, testKPa, 'kPa'),
    ],
  });
}

function filling(builder: Builder, loop: Id): void {
  const { design } = builder;
  const own = design.loops![loop]!;
  const volume = asItStands(builder, loop, 'volumeL');
  const litres = volume.values[0]!;
  const posture = postureOf(own, design.joins ?? {});
  const bleeds = Object.entries(design.joins ?? {})
    .filter(([, join]) => join.loop === loop && join.bleed === true)
    .sort(([a], [b]) => (posture.heights.get(a) ?? 0) - (posture.heights.get(b) ?? 0))
    .map(([, { tag }]) => tag);
  builder.add({
    gate: 'coolant',
    hazard: 'pressure',
    instrument: 'flow-meter',
    template: templates['fill-loop'],
    of: loop,
    title: `Filling of ${own.tag}`,
    do: `${posture.words === null ? '' : `Stand the vehicle with ${posture.words}, on ramps or stands that bear it. `}Fill at the tank, slowly, pump running in short turns. Let air out from the lowest to the highest: ${bleeds.length === 0 ? 'no bleed is named' : bleeds.join(', ')}. Open the throttles fully while filling, then set them. Record the litres that went in.${forNowWords(builder, loop)}`,
    why: 'What does not go in is air, and it lies in the plates.',
    subjects: [{ id: loop, tag: own.tag }],
    touchedBy: [loop, ...opened(builder, loop)],
    range: {
      kind: 'range',
      min: litres * (1 - filledWithinFraction),
      max: litres * (1 + filledWithinFraction),
      nominal: litres,
      unit: 'L',
    },
    gaps: volume.gaps,
    basis: volume.basis,
  });
}

function flowSeen(builder: Builder, loop: Id): void {
  const { tag } = builder.design.loops![loop]!;
  const flow = asItStands(builder, loop, 'flowLPerMin');
  const lPerMin = flow.values[0]!;
  builder.add({
    gate: 'coolant',
    hazard: 'pressure',
    instrument: 'flow-meter',
    template: templates['flow-loop'],
    of: loop,
    title: `Flow of ${tag}`,
    do: `Pump of ${tag} on, loop warm enough that it runs as it will; read the flow behind the pump and see it return in the tank.${forNowWords(builder, loop)}`,
    why: 'A pump that runs is not a flow: air, a shut throttle and swapped hoses sound the same.',
    subjects: [{ id: loop, tag }],
    touchedBy: [loop, ...piecesOfLoop(builder, loop)],
    range: {
      kind: 'range',
      min: lPerMin * (1 - flowWithinFraction),
      max: lPerMin * (1 + flowWithinFraction),
      nominal: lPerMin,
      unit: 'L/min',
    },
    gaps: flow.gaps,
    basis: flow.basis,
  });
}

function warmBox(builder: Builder, box: Id): void {
  const { design } = builder;
  const { tag } = design.boxes[box]!;
  const plates = platesOf(builder, box);
  const loop = design.plumbing![plates[0]!]!.loop ?? '';
  const answer = builder.evaluation.runs[`cooling.loop:${loop}`]?.result as LoopAnswer | undefined;
  const hill = answer?.cases.find(({ at }) => at === 'hill');
  const rises = plates.flatMap((id) => {
    const one = hill?.piecesC?.[id];
    return one === null || one === undefined ? [] : [one.outC - one.inC];
  });
  const current = builder.figures(figureId('cooling.hill', 'vehicle', 'currentA'));
  const riseK = rises.length === 0 ? 0 : Math.max(...rises);
  builder.add({
    gate: 'under-load',
    hazard: 'live',
    instrument: 'thermometer',
    template: templates['warm-box'],
    of: box,
    title: `Coolant over ${tag} under load`,
    do: `Probes on the feed and the return of ${tag}, put on before high voltage is on. Draw about ${Math.round(current.values[0]!)} A for half an hour, pump running; read how much warmer the return is.`,
    why: 'A box that is starved shows here before its cells suffer.',
    subjects: [{ id: box, tag }],
    touchedBy: [
      box,
      loop,
      ...plates,
      ...piecesOfLoop(builder, loop).filter((id) => design.plumbing?.[id]?.kind === 'valve'),
    ],
    range: { kind: 'range', min: -riseReserveK, max: riseK + riseReserveK, nominal: riseK, unit: 'K' },
    gaps:
      rises.length === plates.length && current.gaps.length === 0
        ? []
        : [
            ...current.gaps,
            { kind: 'needs', figure: figureId('cooling.loop', loop, 'platesC'), label: `coolant in ${tag}` },
          ],
    // What a few kilograms move is no reason to measure again.
    basis: [...current.basis, builder.row(`warm:${box}:riseK`, `rise over ${tag}`, riseK, 'K')].map(
      (row) => ({
        ...row,
        toleranceFraction: warmWithinFraction,
      }),
    ),
  });
}

export const coolantProcedure: Procedure = {
  templates,
  steps: (builder) => {
    coolant(builder);
    coolantUnderLoad(builder);
  },
};
