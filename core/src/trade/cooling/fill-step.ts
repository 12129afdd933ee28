import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { coolingDefaults, isHoseRun, loopDefaults, type Design, type Id } from '../../model/document';
import { gapsBehind, Inputs, judge, type StepDefinition } from '../../model/step';
import { expansion, expansionDefaults } from './expansion';
import { glycol50FreezesC } from './fluid';
import { piecesOf, volumeGapsOf } from './pieces';
import { overHv } from './over-hv';
import { highPoints, postureOf } from './posture';
import { coolingRules } from './rules';

const n = formatNumber;
const freezeReserveK = 5;
/** What is filled is at this temperature, °C, where the design says nothing hotter. */
const usualHotC = 65;

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

    const nameOf = (id: Id) => slices.joins[id]?.tag ?? id;
    const ways = pieces.flatMap(({ item }) =>
      item.from === undefined || item.to === undefined ? [] : [{ from: item.from, to: item.to }],
    );
    const touched = [...new Set(ways.flatMap(({ from, to }) => [from, to]))];
    const posture = postureOf(
      loop,
      Object.fromEntries(
        [...touched, ...(loop.tank === undefined ? [] : [loop.tank])].map((id) => [
          id,
          slices.joins[id] ?? { tag: id },
        ]),
      ),
    );
    const zOf = (id: Id) => posture.heights.get(id);
    const noHeight = posture.gaps;
    /** What heights in messages are said of. */
    const standing = posture.words === null ? '' : `With ${posture.words}: `;
    const nothing: Gap[] =
      ways.length === 0 ? [{ kind: 'not-given', path: `loops.${subject}`, label: `pieces of ${tag}` }] : [];
    const highs = highPoints(posture.heights, ways);
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
          ? `${standing}${standing === '' ? 'Air' : 'air'} stays at ${unbled
              .slice(0, 6)
              .map((id) => `${nameOf(id)}, ${n(zOf(id)!)} m up`)
              .join('; ')}.`
          : null,
        [
          ...posture.angles,
          ...unbled.map((id) => ({ label: `height of ${nameOf(id)}`, value: zOf(id)!, unit: 'm' })),
        ],
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
              [...nothing, ...noHeight],
              tankM !== undefined && topM > tankM
                ? `${standing}${nameOf(loop.tank)} lies at ${n(tankM)} m; ${tag} reaches ${n(topM)} m.`
                : null,
              [
                ...posture.angles,
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
