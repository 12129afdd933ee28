import type { CheckValue } from '../../ground/finding';
import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { readPackLayout } from '../pack';
import { boardMapsView } from './board-map';
import { boardsOf, harnessOf } from './map-inputs';
import { monitoringRules } from './rules';
import { senseError } from './sense-error';
import { senseLengthM } from './sense-length';

const n = formatNumber;

/** Each board: what it bleeds, its address, its neighbours, and the walls that its wires pass. */
export const boardStep: StepDefinition = {
  id: 'monitoring.board',
  version: 1,
  subjects: ({ boards = {} }) => Object.keys(boards),
  compute(subject, read) {
    const boards = read.at('boards') ?? {};
    const board = boards[subject]!;
    const { tag } = board;
    const parts = read.at('parts');
    const part = parts[board.unit ?? ''];
    const data = part?.kind === 'unit' ? part.data : null;
    const { layout, gaps } = readPackLayout(read);
    const noUnit: Gap[] =
      data === null ? [{ kind: 'not-given', path: `boards.${subject}.unit`, label: `unit of ${tag}` }] : [];
    const keys = data === null ? [] : [board.unit!];
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    const leadA = layout?.part.data.senseLeadLimitA ?? 0;
    // Set to less, or off: the plan of balancing says so, and is judged there.
    const set = read.at('pack').balance?.bleedCurrentA;
    const bleedA = set ?? data?.bleedA ?? 0;
    // The pair is one finding, said at the first of the two.
    const twins = Object.keys(boards).filter(
      (id) => id !== subject && board.address !== undefined && boards[id]!.address === board.address,
    );
    const sameOrder = Object.keys(boards).filter(
      (id) =>
        id !== subject &&
        board.order !== undefined &&
        boards[id]!.order === board.order &&
        boards[id]!.string === board.string,
    );
    const alike = Object.keys(boards).filter(
      (id) =>
        id !== subject &&
        data !== null &&
        !data.keyed &&
        board.box !== undefined &&
        boards[id]!.box === board.box &&
        boards[id]!.unit === board.unit,
    );
    const chain = board.string === undefined ? [] : boardsOf({ boards }, board.string);
    // One finding for a chain: at the first board whose link parts nothing.
    const firstBare = chain.find(([, { unit }]) => {
      const own = parts[unit ?? ''];
      return own?.kind === 'unit' && !own.data.isolatedLink;
    })?.[0];
    const modules = read.at('modules');
    const string = read.at('strings')[board.string ?? ''];
    const boxes = new Set((string?.modules ?? []).map((id) => modules[id]?.box));
    const foreign = board.box !== undefined && string !== undefined && !boxes.has(board.box);
    // A lead of the harness: by the sense leads of the string, or of all.
    const sense = Object.values(read.at('pack').sense ?? {});
    const lead =
      sense.find((one) => one.string === board.string) ?? sense.find((one) => one.string === undefined);
    const mapped =
      board.string === undefined
        ? undefined
        : read.shared(boardMapsView)[board.string]?.boards?.find(({ id }) => id === subject);
    const ownWires = mapped === undefined ? [] : harnessOf([mapped]);
    const wired = { runs: read.at('runs') ?? {}, senseWires: read.at('senseWires') ?? {} };
    // A tie is a bridge in the plug, a jumper comes from the pin beside.
    const long = ownWires.filter(({ what }) => what === 'tap' || what === 'reference');
    const lengths = long.flatMap(({ id }) => senseLengthM(wired, id) ?? []);
    // The longest is known once all are.
    const lengthM = lengths.length === 0 || lengths.length < long.length ? null : Math.max(...lengths);
    const leadGaps: Gap[] =
      lengthM === null
        ? [
            {
              kind: 'not-given',
              path: 'senseWires',
              label: `length of ${lengths.length === 0 ? 'the' : `${n(long.length - lengths.length)} of ${n(long.length)}`} sense wires of ${tag}`,
            },
          ]
        : [];
    const plug = parts[board.plug ?? ''];
    const cavities = plug?.kind === 'connector' ? plug.data.cavities : null;
    const inputs = new Inputs(read);
    inputs.missing(...noUnit);
    if (lead?.areaMm2 === undefined)
      inputs.missing({ kind: 'not-given', path: 'pack.sense', label: 'area of the sense leads' });
    inputs.missing(...leadGaps);
    inputs.set(
      'bleedA',
      bleedA,
      { kind: 'document', path: set === undefined ? `boards.${subject}.unit` : 'pack.balance.bleedCurrentA' },
      `bleed of ${tag}`,
    );
    inputs.set(
      'leadOhm',
      0.0175 * ((lengthM ?? 0) / (lead?.areaMm2 ?? 1)),
      { kind: 'constant', source: 'copper at 20 °C' },
      `lead of ${tag}`,
    );
    const run = inputs.run(senseError);
    return {
      figures: [
        ...run.figures('monitoring.board', subject, [
          { name: 'errorMv', label: `Reading low while ${tag} bleeds`, unit: 'mV' },
        ]),
        {
          id: figureId('monitoring.board', subject, 'leadM'),
          label: `Longest sense wire of ${tag}`,
          unit: 'm',
          value: lengthM,
          gaps: leadGaps,
          working: [],
        },
      ],
      checks: [
        judge(
          monitoringRules.bleed,
          [subject],
          [...gaps, ...noUnit],
          data !== null && layout !== null && set === undefined && bleedA > leadA * (1 + 1e-9)
            ? `${tag} bleeds ${n(bleedA)} A; leads of ${layout.part.label} carry ${n(leadA)} A.`
            : null,
          [v('bleeds', bleedA, 'A'), v('leads carry', leadA, 'A')],
          { parts: keys },
        ),
        judge(
          monitoringRules.address,
          [subject],
          board.address === undefined
            ? [{ kind: 'not-given', path: `boards.${subject}.address`, label: `address of ${tag}` }]
            : [],
          twins.length > 0 && subject < twins[0]!
            ? `${[tag, ...twins.map((id) => boards[id]!.tag)].join(' and ')} have address ${n(board.address!)}.`
            : null,
          [v('address', board.address ?? 0)],
          { also: twins },
        ),
        judge(
          monitoringRules.orderTwice,
          [subject],
          [],
          sameOrder.length > 0 && subject < sameOrder[0]!
            ? `${[tag, ...sameOrder.map((id) => boards[id]!.tag)].join(' and ')} have place ${n(board.order!)}.`
            : null,
          [v('place', board.order ?? 0)],
          { also: sameOrder },
        ),
        judge(
          monitoringRules.takesMore,
          [subject],
          board.takes === undefined ? [] : noUnit,
          data !== null && board.takes !== undefined && board.takes > data.channels
            ? `${tag} is to take ${n(board.takes)} cells; it has ${n(data.channels)} channels.`
            : null,
          [v('takes', board.takes ?? 0), v('channels', data?.channels ?? 0)],
          { parts: keys },
        ),
        judge(
          monitoringRules.plugs,
          [subject],
          noUnit,
          alike.length > 0 && subject < alike[0]!
            ? `${n(alike.length + 1)} boards in ${read.at('boxes', board.box!)?.tag ?? ''}: ${[tag, ...alike.map((id) => boards[id]!.tag)].join(', ')}.`
            : null,
          [v('boards', alike.length + 1)],
          { parts: keys, also: alike },
        ),
        judge(
          monitoringRules.plugShort,
          [subject],
          cavities === null || ownWires.length === 0
            ? [
                cavities === null
                  ? { kind: 'not-given', path: `boards.${subject}.plug`, label: `plug of ${tag}` }
                  : { kind: 'not-given', path: 'boards', label: `map of ${tag}` },
              ]
            : [],
          cavities !== null && ownWires.length > cavities
            ? `The plug of ${tag} has ${n(cavities)} cavities; ${n(ownWires.length)} wires end in it.`
            : null,
          [v('cavities', cavities ?? 0), v('wires', ownWires.length)],
          { parts: board.plug === undefined ? [] : [board.plug] },
        ),
        judge(
          monitoringRules.wall,
          [subject],
          board.box === undefined
            ? [{ kind: 'not-given', path: `boards.${subject}.box`, label: `box of ${tag}` }]
            : [],
          foreign && data !== null
            ? `Up to ${n(data.channels + 1)} wires lead to ${tag}, which sits in another box.`
            : null,
          [v('wires', (data?.channels ?? 0) + 1)],
        ),
        judge(
          monitoringRules.chain,
          [subject],
          noUnit,
          data !== null && !data.isolatedLink && chain.length > 1 && firstBare === subject
            ? `From ${tag} on, the first of ${n(chain.length)} boards.`
            : null,
          [v('boards in the chain', chain.length)],
          { parts: keys },
        ),
      ],
    };
  },
};
