import { formatQuantity } from '../../../ground/quantity';
import type { Gap } from '../../../ground/figure';
import type { Id } from '../../../model/document';
import { sensingDefaults, touchLimitOf } from '../../../model/document';
import { cellLimits } from '../../charging';
import type { BmsMapResult, MappedBoard } from '../bms-map';
import { boardsOf } from '../map-inputs';
import { packLayout } from '../../pack';
import type { Entry, ResultBody } from '../../../record';
import {
  defineTemplates,
  type Builder,
  type Expectation,
  type Procedure,
  type ProcedureStep,
} from '../../../model/procedure';

const templates = defineTemplates({
  'unit-plugged': {},
  'unit-found': {},
  'unit-channels': {},
  'unit-sensors': {},
  'unit-warmed': {},
  'unit-loop': {},
  'unit-trips': {},
});

const gate = 'power-up' as const;
/** A closed output of the monitor shows no more than this, Ω. */
const closedOhm = 10;
/** A harness is looked at again so long after it was plugged in, min; nothing of it is warmer than what is beside it by more, K. */
const watchedMinutes = [1, 10];
const warmAtMostK = 5;
/** Sensors of a board that has rested lie no further from their middle than this, K. */
const restedWithinK = 5;
/** A sensor held in the hand rises by this at the least, K. */
const warmedK = 1.5;
/** A sensor that reads beyond these is open or shorted, °C. */
const plausibleC = { min: -30, max: 60 };

/** The monitoring under its own power for the first time: each board, channel, sensor and limit. */
function powerUp(builder: Builder): void {
  for (const string of Object.keys(builder.design.strings)) {
    const run = builder.evaluation.runs[`monitoring.map:${string}`];
    const result = (run?.result ?? null) as BmsMapResult | null;
    const used = (result?.boards ?? []).filter(({ cells }) => cells.length > 0);
    if (used.length === 0) continue;
    for (const board of used) plugged(builder, board);
    found(builder, string);
    for (const board of used) {
      channels(builder, board);
      sensorsOf(builder, board.id);
    }
    loop(builder, string);
    for (const board of used) trips(builder, board.id);
  }
}

const tagOf = ({ design }: Builder, board: Id) => design.boards?.[board]?.tag ?? board;

/** A harness that was just plugged in, watched for a while: what is wired wrong in spite of its ladder gets warm, or sinks. */
function plugged(builder: Builder, board: MappedBoard): void {
  const { layout } = packLayout(builder.design);
  if (layout === null) return;
  const tag = tagOf(builder, board.id);
  const first = board.cells[0]!.module;
  builder.add({
    gate,
    hazard:
      board.cells.length * layout.part.data.cell.maxV > touchLimitOf(builder.design) ? 'part-hv' : 'part',
    instrument: 'thermometer',
    template: templates['unit-plugged'],
    of: board.id,
    title: `Harness of ${tag} after plugging`,
    do: `Right after the plug of ${tag} is in: point a thermometer at the harness and the board, without touching either, and find the warmest place; again after ${watchedMinutes.join(' and ')} minutes. Record by how much it lies above ${builder.design.modules[first]?.tag ?? first} beside it. At smoke, smell or a rise that goes on: plug out at once, and the ladder again.`,
    why: 'A tie to the wrong wire or a fuse that is bridged shows in minutes, as a warm lead, and not in the ladder.',
    waitMinutes: watchedMinutes.at(-1)!,
    subjects: [{ id: board.id, tag }],
    touchedBy: [board.id, ...new Set(board.cells.map(({ module }) => module))],
    range: {
      kind: 'list',
      items: ['at once', ...watchedMinutes.map((minutes) => `after ${minutes} min`)],
      max: warmAtMostK,
      unit: 'K',
    },
    gaps: [],
    basis: [
      builder.row(`sense:${board.id}:cells`, `cells of ${tag}`, board.cells.length, ''),
      builder.row(`sense:${board.id}:first`, `first cell of ${tag}`, board.cells[0]!.cell, ''),
    ],
  });
}

function found(builder: Builder, string: Id): void {
  const { design } = builder;
  const { tag } = design.strings[string]!;
  const boards = boardsOf({ boards: design.boards ?? {} }, string);
  builder.add({
    gate,
    hazard: 'part-hv',
    instrument: 'monitor-readout',
    template: templates['unit-found'],
    of: string,
    title: `Boards found on ${tag}`,
    do: `Sense plugs in by their order, contactors held open, supply on. Count the boards that the readout lists for ${tag}; write their addresses beside the list.`,
    why: 'A board that is missing, or listed twice under one address, watches nothing.',
    subjects: [{ id: string, tag }],
    touchedBy: boards.map(([id]) => id),
    range: { kind: 'range', min: boards.length, max: boards.length, nominal: boards.length, unit: '' },
    gaps: [],
    basis: [builder.row(`sense:${string}:boards`, `boards of ${tag}`, boards.length, '')],
  });
}

function channels(builder: Builder, board: MappedBoard): void {
  const { design } = builder;
  const { layout } = packLayout(design);
  if (layout === null) return;
  const tag = tagOf(builder, board.id);
  const { minV, maxV } = layout.part.data.cell;
  const withinV = (design.sensing?.channelMv ?? sensingDefaults.channelMv) / 1000;
  builder.add({
    gate,
    hazard: board.cells.length * maxV > touchLimitOf(design) ? 'part-hv' : 'part',
    instrument: 'monitor-readout',
    template: templates['unit-channels'],
    of: board.id,
    title: `Channels of ${tag}`,
    do: `Nothing charges and nothing draws. Read each channel of ${tag}, from its lowest cell up.`,
    why: 'What the meter read at the plug and what the board tells of it are two different things.',
    subjects: [{ id: board.id, tag }],
    touchedBy: [board.id, ...new Set(board.cells.map(({ module }) => module))],
    range: {
      kind: 'list',
      items: board.cells.map(({ channel, cell }) => `channel ${channel}, cell ${cell}`),
      min: minV,
      max: maxV,
      ladder: { step: `sense-ladder:${board.id}`, within: withinV },
      unit: 'V',
    },
    gaps: [],
    basis: [
      builder.row(`sense:${board.id}:cells`, `cells of ${tag}`, board.cells.length, ''),
      builder.row(`sense:${board.id}:first`, `first cell of ${tag}`, board.cells[0]!.cell, ''),
      builder.row(`sense:${board.id}:within`, 'channel off its step', withinV, 'V'),
    ],
  });
}

function sensorsOf(builder: Builder, board: Id): void {
  const own = Object.entries(builder.design.sensors ?? {}).filter(([, sensor]) => sensor.board === board);
  if (own.length === 0) return;
  const tag = tagOf(builder, board);
  const subjects = [{ id: board, tag }];
  const touchedBy = [board, ...own.map(([id]) => id)];
  const items = own.map(([, sensor]) => sensor.tag);
  const basis = [builder.row(`sense:${board}:sensors`, `sensors of ${tag}`, own.length, '')];
  builder.add({
    gate,
    hazard: 'part-hv',
    instrument: 'monitor-readout',
    template: templates['unit-sensors'],
    of: board,
    title: `Sensors of ${tag} at rest`,
    do: `After a night without heating, charging or driving: read every temperature that ${tag} tells, in this order: ${items.join(', ')}.`,
    why: 'A sensor that is open reads very cold, one that is shorted very hot; one that nobody fitted reads the board.',
    subjects,
    touchedBy,
    range: { kind: 'list', items, ...plausibleC, withinOfMiddle: restedWithinK, unit: '°C' },
    gaps: [],
    basis,
  });
  builder.add({
    gate,
    hazard: 'part-hv',
    instrument: 'monitor-readout',
    template: templates['unit-warmed'],
    of: board,
    title: `Sensors of ${tag} warmed one by one`,
    do: `Warm each sensor in turn, by a warm pad on the insulated face of its module, never by reaching between live parts; record by how much that one rose while the others stayed: ${items.join(', ')}.`,
    why: 'Two sensors that are exchanged read well until one place is hot.',
    subjects,
    touchedBy,
    range: { kind: 'list', items, min: warmedK, unit: 'K' },
    gaps: [],
    basis,
  });
}

function loop(builder: Builder, string: Id): void {
  const { tag } = builder.design.strings[string]!;
  builder.add({
    gate,
    hazard: 'low-voltage',
    instrument: 'meter',
    template: templates['unit-loop'],
    of: string,
    title: `Output of the monitor for ${tag} closed`,
    do: 'Every cell and sensor within its limits, no fault told: read the resistance of the output that holds the safety chain, its plug to the chain pulled.',
    why: 'An output that never closes is found now; one that never opens is found by the next steps.',
    subjects: [{ id: string, tag }],
    touchedBy: boardsOf({ boards: builder.design.boards ?? {} }, string).map(([id]) => id),
    range: { kind: 'range', max: closedOhm, unit: 'Ω' },
    gaps: [],
    basis: [builder.row(`sense:${string}:loop`, `output for ${tag}`, closedOhm, 'Ω')],
  });
}

/** Every limit crossed on purpose, board by board: seconds until the output opens. */
function trips(builder: Builder, board: Id): void {
  const { design } = builder;
  const { layout } = packLayout(design);
  if (layout === null) return;
  const tag = tagOf(builder, board);
  const { cutHighV, cutLowV } = design.limits ?? {};
  const { maxC, chargeMinC } = cellLimits(design.cooling, layout.part.data.chemistry);
  const gaps: Gap[] = (
    [
      ['cutHighV', cutHighV, 'cuts above'],
      ['cutLowV', cutLowV, 'cuts below'],
    ] as const
  ).flatMap(([field, value, label]) =>
    value === undefined
      ? [{ kind: 'not-given' as const, path: `limits.${field}`, label: `monitor ${label}` }]
      : [],
  );
  const q = formatQuantity;
  const withSensors = Object.values(design.sensors ?? {}).some((sensor) => sensor.board === board);
  const items = [
    `a cell above ${q(cutHighV ?? 0, 'V', 4)}`,
    `a cell below ${q(cutLowV ?? 0, 'V', 4)}`,
    ...(withSensors
      ? [`a sensor above ${q(maxC, '°C')}`, `a sensor below ${q(chargeMinC, '°C')} in charge`]
      : []),
    'a sense wire lost',
    'the link lost',
  ];
  const reactionS = design.sensing?.reactionS ?? sensingDefaults.reactionS;
  builder.add({
    gate,
    hazard: 'low-voltage',
    instrument: 'bench-supply',
    template: templates['unit-trips'],
    of: board,
    title: `Limits of ${tag} crossed on purpose`,
    do: `${tag} on the bench or its sense plug out: a divider from a bench supply in place of its cells, resistors in place of its sensors; never force a real cell beyond its limits. Cross each by a little and read the seconds until the output opens: ${items.join('; ')}.`,
    why: 'A limit that was never crossed is a hope.',
    subjects: [{ id: board, tag }],
    touchedBy: [board],
    range: { kind: 'list', items, max: reactionS, min: 0, unit: 's' },
    gaps,
    basis: [
      builder.row(`sense:${board}:cutHigh`, 'monitor cuts above', cutHighV ?? 0, 'V'),
      builder.row(`sense:${board}:cutLow`, 'monitor cuts below', cutLowV ?? 0, 'V'),
      builder.row(`sense:${board}:hot`, 'cells at most', maxC, '°C'),
      builder.row(`sense:${board}:cold`, 'charged from', chargeMinC, '°C'),
      builder.row(`sense:${board}:reaction`, 'opens within', reactionS, 's'),
    ],
  });
}

export const powerUpProcedure: Procedure = { templates, steps: powerUp };

/**
 * What a step expects, with what the record tells of it filled in: the steps of the ladder that passed last at the same board.
 *
 * @param entries that count, in order
 */
export function withRecord(
  { expected }: Pick<ProcedureStep, 'expected'>,
  entries: readonly Entry[],
): Expectation | null {
  if (expected?.kind !== 'list' || expected.ladder === undefined) return expected;
  const { ladder, items } = expected;
  const corrected = new Set(entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const last = entries
    .flatMap((entry) => (entry.body.kind === 'result' && !corrected.has(entry.seq) ? [entry.body] : []))
    .findLast((body: ResultBody) => body.step === ladder.step);
  if (last === undefined || last.verdict !== 'pass' || last.measured.kind !== 'ladder') return expected;
  const { taps } = last.measured;
  const recordedV = items.map((_, i) => taps[i]! - (taps[i - 1] ?? 0));
  return { ...expected, ladder: { ...ladder, recordedV } };
}
