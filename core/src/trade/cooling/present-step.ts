import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import {
  coolingDefaults,
  type Design,
  type Id,
  type PlumbingItem,
  type StandInItem,
} from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { fluidAt } from './fluid';
import { slicesOf, worked } from './loop-answer';
import { volumeGapsOf, type PlumbingSlices } from './pieces';
import { coolingRules } from './rules';
import { solveLoop } from './solve';

const n = formatNumber;
/** Less than this is no flow, L/min. */
const standsLPerMin = 0.005;

/** What each piece gets as a loop stands today, L/min, by the id of the piece or of what stands in for it. */
export interface PresentFlows {
  flowsLPerMin: Record<Id, number>;
}

const standInsOf = (standIns: Design['standIns'], loop: Id): [Id, StandInItem][] =>
  Object.entries(standIns ?? {}).filter(([, one]) => one.loop === loop);

/** The plumbing of a loop as it stands today: without what is not there yet, with the hoses that stand in for it. */
export function plumbingToday(
  plumbing: PlumbingSlices['plumbing'],
  standIns: Design['standIns'],
  loop: Id,
): Record<Id, PlumbingItem> {
  const own = standInsOf(standIns, loop);
  const gone = new Set(own.flatMap(([, { instead = [] }]) => instead));
  const left = Object.entries(plumbing ?? {}).filter(([id]) => !gone.has(id));
  const hoses = own.flatMap(([id, { tag, from, to, hose, lengthM, minorK }]): [Id, PlumbingItem][] =>
    from === undefined && to === undefined
      ? []
      : [
          [
            id,
            {
              tag,
              loop,
              kind: 'hose',
              ...(from !== undefined && { from }),
              ...(to !== undefined && { to }),
              ...(hose !== undefined && { hose }),
              ...(lengthM !== undefined && { lengthM }),
              ...(minorK !== undefined && { minorK }),
            },
          ],
        ],
  );
  return Object.fromEntries([...left, ...hoses]);
}

/** A gap of a stand-in is filled at the stand-in. */
const atStandIn = (standIns: Design['standIns'], gap: Gap): Gap => {
  if (!('path' in gap)) return gap;
  const [, id = '', ...rest] = gap.path.split('.');
  return standIns?.[id] === undefined ? gap : { ...gap, path: ['standIns', id, ...rest].join('.') };
};

/** A loop as it stands today, with what stands in for pieces that are not there: its flow, and what it holds. */
export const presentStep: StepDefinition = {
  id: 'cooling.present',
  version: 1,
  subjects: ({ loops = {}, standIns }) =>
    Object.keys(loops).filter((id) => standInsOf(standIns, id).length > 0),
  compute(subject, read) {
    const standIns = read.at('standIns') ?? {};
    const own = standInsOf(standIns, subject);
    const slices = slicesOf(read);
    const loop = slices.loops![subject]!;
    const plumbing = plumbingToday(slices.plumbing, standIns, subject);
    const { pieces, elements, gaps: missing, table } = worked({ ...slices, plumbing }, subject);
    const gaps = missing.map((gap) => atStandIn(standIns, gap));
    const pump = elements.find(({ kind }) => kind === 'pump');
    const noPump: Gap[] =
      gaps.length > 0 || pump !== undefined
        ? gaps
        : [{ kind: 'never', label: `${loop.tag}, as it stands today: without a pump nothing flows` }];
    const airC = slices.cooling?.hotC ?? coolingDefaults.hotC;
    const tank =
      loop.tank !== undefined && elements.some(({ from, to }) => from === loop.tank || to === loop.tank);
    const solved =
      noPump.length > 0 ? null : solveLoop(elements, fluidAt(table, airC), tank ? loop.tank! : pump!.from);
    const flows = Object.fromEntries(
      solved === null ? [] : elements.map(({ id }, i): [Id, number] => [id, solved.flows[i]!]),
    );
    const through = solved === null ? null : flows[pump!.id]!;
    // An open way has no flow to be read: nothing passes by standing still.
    const stands = through !== null && Math.abs(through) < standsLPerMin;
    const flow = stands ? null : through;
    const unknown = volumeGapsOf(pieces).map((gap) => atStandIn(standIns, gap));
    const litres = unknown.length > 0 ? null : pieces.reduce((sum, { volumeL }) => sum + volumeL!, 0);
    const figure = (
      name: 'flowLPerMin' | 'volumeL',
      label: string,
      unit: string,
      value: number | null,
      own: Gap[],
      source: string,
    ): Figure => ({
      id: figureId('cooling.present', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? own : [],
      working:
        value === null
          ? []
          : [
              {
                symbol: name === 'volumeL' ? 'V' : 'Q',
                label,
                formula: name === 'volumeL' ? 'Σ of its pieces' : 'balance of the loop',
                inputs: [{ symbol: 'n', label: 'pieces', value: pieces.length, unit: '' }],
                value,
                unit,
                source,
              },
            ],
    });
    const instead = own.flatMap(([, { instead = [] }]) => instead);
    return {
      figures: [
        figure(
          'flowLPerMin',
          'Flow of the pump, as it stands today',
          'L/min',
          flow,
          stands
            ? [{ kind: 'never', label: `${loop.tag}, as it stands today: its way is open, nothing flows` }]
            : noPump,
          'Darcy–Weisbach, pump curves, continuity at every node; stand-ins as given',
        ),
        figure(
          'volumeL',
          'Coolant it holds, as it stands today',
          'L',
          litres,
          unknown,
          'Bores times lengths, and what parts hold; stand-ins as given',
        ),
      ],
      ...(solved !== null && {
        run: {
          calculator: 'cooling-present',
          input: { loop: subject },
          result: { flowsLPerMin: flows } satisfies PresentFlows,
        },
      }),
      checks: [
        judge(
          coolingRules.forNow,
          [subject],
          [],
          `${loop.tag}: ${n(own.length)} ${own.length === 1 ? 'stands' : 'stand'} in for ${n(instead.length)} ${instead.length === 1 ? 'piece' : 'pieces'} of the plan: ${own.map(([, { tag }]) => tag).join(', ')}.`,
          [
            { label: 'stand-ins', value: own.length, unit: '' },
            { label: 'pieces of the plan that are not there', value: instead.length, unit: '' },
          ],
          { parts: own.map(([id]) => id), also: own.map(([id]) => id) },
        ),
      ],
    };
  },
};
