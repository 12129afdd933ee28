import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { coolingDefaults, isHoseRun, loopDefaults, type Design, type Id } from '../../model/document';
import { gapsBehind, Inputs, judge, type StepDefinition } from '../../model/step';
import { expansion, expansionDefaults } from './expansion';
import { glycol50FreezesC } from './fluid';
import { piecesOf, volumeGapsOf } from './pieces';
import { coolingRules } from './rules';

const n = formatNumber;
/** A join counts as higher than its neighbours from here on, m. */
const higherByM = 0.02;
/** Nearer beside each other than this, what drips from one falls on the other, m. */
const besideM = 0.15;
const freezeReserveK = 5;
/** What is filled is at this temperature, °C, where the design says nothing hotter. */
const usualHotC = 65;

/** Joins of a loop that lie higher than all their neighbours, those level with each other together: air gathers there. */
export function highPoints(
  joins: NonNullable<Design['joins']>,
  ways: readonly { from: Id; to: Id }[],
): Id[][] {
  const beside = new Map<Id, Set<Id>>();
  for (const { from, to } of ways) {
    beside.set(from, (beside.get(from) ?? new Set()).add(to));
    beside.set(to, (beside.get(to) ?? new Set()).add(from));
  }
  const zOf = (id: Id) => joins[id]?.zM;
  const highs: Id[][] = [];
  const seen = new Set<Id>();
  for (const start of beside.keys()) {
    const z = zOf(start);
    if (z === undefined || seen.has(start)) continue;
    // A level stretch counts as one place.
    const level = [start];
    let isHigh = true;
    for (let i = 0; i < level.length; i += 1)
      for (const next of beside.get(level[i]!)!) {
        const own = zOf(next);
        if (own === undefined || level.includes(next)) continue;
        if (Math.abs(own - z) <= higherByM) level.push(next);
        else if (own > z) isHigh = false;
      }
    level.forEach((id) => seen.add(id));
    if (isHigh) highs.push(level.sort((a, b) => zOf(b)! - zOf(a)!));
  }
  return highs;
}

/** What a loop holds, how it expands, and where air stays in it. */
export const fillStep: StepDefinition = {
  id: 'cooling.fill',
  version: 1,
  subjects: ({ loops = {} }) => Object.keys(loops),
  compute(subject, read) {
    const loop = (read.at('loops') ?? {})[subject]!;
    const { tag } = loop;
    const slices = {
      plumbing: read.at('plumbing') ?? {},
      joins: read.at('joins') ?? {},
      loops: read.at('loops') ?? {},
      parts: read.at('parts'),
    };
    const pieces = piecesOf(slices, subject);
    const part = slices.parts[loop.coolant ?? ''];
    const coolant = part?.kind === 'coolant' ? part.data : null;
    const cooling = read.at('cooling') ?? {};
    const coldC = cooling.coldC ?? coolingDefaults.coldC;
    const unknown = volumeGapsOf(pieces);
    const volumeGaps: Gap[] =
      loop.volumeL !== undefined
        ? loop.volumeL > 0
          ? []
          : [
              {
                kind: 'invalid',
                path: `loops.${subject}.volumeL`,
                label: `filling of ${tag}`,
                message: 'must be above 0',
              },
            ]
        : pieces.length === 0
          ? [{ kind: 'not-given', path: `loops.${subject}`, label: `pieces of ${tag}` }]
          : unknown;
    const volumeL =
      volumeGaps.length > 0 ? null : (loop.volumeL ?? pieces.reduce((sum, piece) => sum + piece.volumeL!, 0));
    const volume: Figure = {
      id: figureId('cooling.fill', subject, 'volumeL'),
      label: 'Coolant it holds',
      unit: 'L',
      value: volumeL,
      gaps: volumeGaps,
      working:
        volumeL === null
          ? []
          : [
              {
                symbol: 'V',
                label: 'Coolant it holds',
                formula: loop.volumeL === undefined ? 'Σ of its pieces' : 'as filled',
                inputs: [{ symbol: 'n', value: pieces.length, unit: 'pieces' }],
                value: volumeL,
                unit: 'L',
                source: 'Bores times lengths, and what parts hold',
              },
            ],
    };
    const hottest = read.figure(figureId('cooling.loop', subject, 'hottestC'));
    const inputs = new Inputs(read);
    if (volumeL === null) inputs.missing(...volumeGaps);
    else inputs.set('volumeL', volumeL, { kind: 'figure', id: volume.id });
    inputs.set(
      'coldC',
      coldC,
      { kind: cooling.coldC === undefined ? 'default' : 'document', path: 'cooling.coldC' },
      'coldest night',
    );
    if (hottest.value !== null)
      inputs.set('hotC', Math.max(coldC, hottest.value), { kind: 'figure', id: hottest.id }, hottest.label);
    else if (gapsBehind(hottest).every(({ kind }) => kind === 'needs'))
      inputs.set('hotC', Math.max(coldC, usualHotC), {
        kind: 'constant',
        source: 'usual for a loop whose temperature is not known',
      });
    else inputs.missing(...gapsBehind(hottest));
    inputs.given('tankL', loop.tankL, `loops.${subject}.tankL`, `room in the tank of ${tag}`);
    inputs.set('betaPerK', coolant?.expansionPerK ?? expansionDefaults.betaPerK, {
      kind: 'constant',
      source: coolant === null ? '50 % glycol in water' : part!.label,
    });
    inputs.optional(
      'reserveFraction',
      loop.tankReserveFraction,
      `loops.${subject}.tankReserveFraction`,
      'reserve in the tank',
    );
    const run = inputs.run(expansion);

    const zOf = (id: Id) => slices.joins[id]?.zM;
    const nameOf = (id: Id) => slices.joins[id]?.tag ?? id;
    const ways = pieces.flatMap(({ item }) =>
      item.from === undefined || item.to === undefined ? [] : [{ from: item.from, to: item.to }],
    );
    const touched = [...new Set(ways.flatMap(({ from, to }) => [from, to]))];
    const noHeight = touched.flatMap((id): Gap[] =>
      zOf(id) === undefined
        ? [{ kind: 'not-given', path: `joins.${id}.zM`, label: `height of ${nameOf(id)}` }]
        : [],
    );
    const nothing: Gap[] =
      ways.length === 0 ? [{ kind: 'not-given', path: `loops.${subject}`, label: `pieces of ${tag}` }] : [];
    const highs = highPoints(slices.joins, ways);
    const unbled = highs.flatMap((level) =>
      level.some((id) => slices.joins[id]!.bleed === true || id === loop.tank) ? [] : [level[0]!],
    );
    const topM = touched.reduce(
      (top, id) => Math.max(top, id === loop.tank ? -Infinity : (zOf(id) ?? -Infinity)),
      -Infinity,
    );
    const tankM = loop.tank === undefined ? undefined : zOf(loop.tank);
    const freezesC = coolant === null ? glycol50FreezesC : coolant.freezesC;
    const checks: Check[] = [
      judge(
        coolingRules.noBleed,
        [subject],
        [...nothing, ...noHeight],
        unbled.length > 0
          ? `Air stays at ${unbled
              .slice(0, 6)
              .map((id) => `${nameOf(id)}, ${n(zOf(id)!)} m up`)
              .join('; ')}.`
          : null,
        unbled.map((id) => ({ label: `height of ${nameOf(id)}`, value: zOf(id)!, unit: 'm' })),
        { also: unbled },
      ),
      judge(
        coolingRules.noTank,
        [subject],
        nothing,
        loop.tank === undefined ? `${tag}, ${n(pieces.length)} pieces, has no tank.` : null,
        [
          { label: 'tanks', value: loop.tank === undefined ? 0 : 1, unit: '' },
          { label: 'pieces', value: pieces.length, unit: '' },
        ],
      ),
      ...(loop.tank === undefined
        ? []
        : [
            judge(
              coolingRules.tankLow,
              [subject],
              [
                ...nothing,
                ...noHeight,
                ...(tankM === undefined
                  ? [
                      {
                        kind: 'not-given' as const,
                        path: `joins.${loop.tank}.zM`,
                        label: `height of ${nameOf(loop.tank)}`,
                      },
                    ]
                  : []),
              ],
              tankM !== undefined && topM > tankM
                ? `${nameOf(loop.tank)} lies at ${n(tankM)} m; ${tag} reaches ${n(topM)} m.`
                : null,
              [
                { label: 'tank', value: tankM ?? 0, unit: 'm' },
                { label: 'highest of the rest', value: Number.isFinite(topM) ? topM : 0, unit: 'm' },
              ],
              { also: [loop.tank] },
            ),
          ]),
      judge(
        coolingRules.freezes,
        [subject],
        nothing,
        freezesC + freezeReserveK > coldC
          ? `It freezes at ${formatQuantity(freezesC, '°C')}; the coldest night has ${formatQuantity(coldC, '°C')}.`
          : null,
        [
          { label: 'freezes at', value: freezesC, unit: '°C' },
          { label: 'coldest night', value: coldC, unit: '°C' },
        ],
      ),
      ...run.checks(
        [subject],
        [
          { label: 'room in the tank', value: loop.tankL ?? 0, unit: 'L' },
          { label: 'needed', value: run.result?.neededTankL ?? 0, unit: 'L' },
        ],
      ),
      overHv(
        subject,
        touched,
        slices.joins,
        Object.fromEntries(Object.entries(read.at('runs') ?? {}).filter(([, run]) => !isHoseRun(run))),
        nothing,
      ),
    ];
    return run.output(
      [
        volume,
        ...run.figures('cooling.fill', subject, [
          { name: 'expansionL', symbol: 'ΔV', label: 'Expansion of the coolant', unit: 'L' },
          {
            name: 'neededTankL',
            symbol: 'V_t',
            label: 'Room needed in the tank',
            unit: 'L',
            ...(loop.tankL !== undefined && { limit: { max: loop.tankL } }),
          },
        ]),
      ],
      checks,
    );
  },
};

/** Joins with a place of their own, above ends of HV runs with one. */
function overHv(
  subject: Id,
  touched: readonly Id[],
  joins: NonNullable<Design['joins']>,
  runs: NonNullable<Design['runs']>,
  nothing: Gap[],
): Check {
  const met: { tag: string; run: string; besideM: number; also: Id[] }[] = [];
  for (const id of touched) {
    const { tag, xM, yM, zM } = joins[id] ?? { tag: id };
    if (xM === undefined || yM === undefined || zM === undefined) continue;
    for (const [runId, run] of Object.entries(runs))
      for (const end of [run.points?.[0], run.points?.at(-1)]) {
        if (end?.xM === undefined || end.yM === undefined || end.zM === undefined || end.zM > zM) continue;
        const own = Math.hypot(end.xM - xM, end.yM - yM);
        if (own < besideM) met.push({ tag, run: run.tag, besideM: own, also: [id, runId] });
      }
  }
  const unplaced = touched.flatMap((id): Gap[] => {
    const join = joins[id];
    return join?.xM === undefined || join.yM === undefined || join.zM === undefined
      ? [{ kind: 'not-given', path: `joins.${id}`, label: `place of ${join?.tag ?? id}` }]
      : [];
  });
  // What is known to lie above is said; clear it is only once all have a place.
  return judge(
    coolingRules.overHv,
    [subject],
    met.length > 0 ? [] : [...nothing, ...unplaced],
    met.length > 0
      ? `${met
          .slice(0, 6)
          .map(({ tag, run, besideM: own }) => `${tag} above an end of ${run}, ${n(own)} m beside it`)
          .join('; ')}.`
      : null,
    met.map(({ tag, besideM: own }) => ({ label: `${tag} beside it`, value: own, unit: 'm' })),
    { also: met.flatMap(({ also }) => also) },
  );
}

/** What a piece stands in a test, kPa; endless where its part does not say. */
export function holdLimitKPa({ plumbing, parts }: Pick<Design, 'plumbing' | 'parts'>, id: Id): number {
  const piece = plumbing?.[id];
  const plate = parts[piece?.plate ?? ''];
  const radiator = parts[piece?.radiator ?? ''];
  const hose = parts[piece?.hose ?? ''];
  // A hose is tested with no more than a third of what bursts it.
  return Math.min(
    plate?.kind === 'plate' ? plate.data.testKPa : Infinity,
    radiator?.kind === 'radiator' ? (radiator.data.testKPa ?? Infinity) : Infinity,
    hose?.kind === 'hose' ? hose.data.burstKPa / 3 : Infinity,
  );
}

/** What a loop is tested with, and how. */
export const testOf = (loop: NonNullable<Design['loops']>[Id]) => ({
  testKPa: loop.testKPa ?? loopDefaults.testKPa,
  testMinutes: loop.testMinutes ?? loopDefaults.testMinutes,
  testDropKPa: loop.testDropKPa ?? loopDefaults.testDropKPa,
});
