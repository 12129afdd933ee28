import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { oneLeadOhm, readPackLayout } from '../pack';
import { bmsMap, bmsMapRules, type BmsMapInput, type BmsMapResult } from './bms-map';
import { boardsOf, mapInput } from './map-inputs';
import { monitoringRules } from './rules';
import { senseError } from './sense-error';

const n = formatNumber;

/** What is said of monitoring: then every string is asked. */
const saysSensing = (design: { sensing?: { school?: string }; boards?: object }) =>
  (design.sensing !== undefined && design.sensing.school !== 'donor') ||
  Object.keys(design.boards ?? {}).length > 0;

/** The map of a string: which board reads which cells, and what it costs where it reaches over a break. */
export const mapStep: StepDefinition = {
  id: 'monitoring.map',
  version: 1,
  subjects: (design) =>
    saysSensing(design)
      ? Object.keys(design.strings).filter((id) => design.strings[id]!.modules.length > 0)
      : [],
  compute(subject, read) {
    const strings = read.at('strings');
    const { tag } = strings[subject]!;
    const parts = read.at('parts');
    const leads = read.at('pack').leads ?? {};
    const design = {
      strings,
      modules: read.at('modules'),
      parts,
      boards: read.at('boards') ?? {},
      sensing: read.at('sensing') ?? {},
      pack: read.at('pack'),
    };
    const { disconnectAt, disconnect } = strings[subject]!;
    const plug = parts[disconnect ?? ''];
    const contactOhm = plug?.kind === 'disconnect' ? plug.data.contactOhm : 0;
    // What current loses there: cables, and the contacts of the disconnect.
    const ohmAt = (joint: number) =>
      (joint === disconnectAt ? contactOhm : 0) +
      Object.values(leads).reduce(
        (sum, lead) =>
          lead.string === subject && lead.joint === joint ? sum + (oneLeadOhm(lead, parts) ?? 0) : sum,
        0,
      );
    const { input, gaps } = mapInput(design, subject, ohmAt);
    const inputs = new Inputs(read);
    inputs.missing(...gaps);
    const own = boardsOf(design, subject);
    if (own.length === 0) inputs.missing({ kind: 'not-given', path: 'boards', label: `boards for ${tag}` });
    inputs.set(
      'modules',
      input.modules,
      { kind: 'document', path: `strings.${subject}.modules` },
      `modules of ${tag}`,
    );
    inputs.set('boards', input.boards, { kind: 'document', path: 'boards' }, `boards of ${tag}`);
    inputs.set('strategy', input.strategy, { kind: 'document', path: 'sensing.strategy' });
    inputs.set('breaks', input.breaks, { kind: 'document', path: `strings.${subject}` }, `breaks of ${tag}`);
    inputs.set('avoidStraddlingBreaks', input.avoidStraddlingBreaks, {
      kind: 'document',
      path: 'sensing.mayStraddle',
    });
    if (input.peakCurrentA !== null)
      inputs.set(
        'peakCurrentA',
        input.peakCurrentA,
        { kind: 'document', path: 'pack.peakCurrentA' },
        'peak current of a string',
      );
    const run = inputs.run<BmsMapInput, BmsMapResult>(bmsMap);
    const { result } = run;
    const modules = read.at('modules');
    const named = (id: Id) => read.at('boards')?.[id]?.tag ?? id;
    const hard = (result?.straddles ?? []).filter(({ kind }) => kind !== 'link');
    const soft = (result?.straddles ?? []).filter(({ kind }) => kind === 'link');
    const worst = (result?.straddles ?? []).reduce(
      (most, { mvAtPeak }) => Math.max(most, Math.abs(mvAtPeak)),
      0,
    );
    const spare = (result?.boards ?? []).reduce((sum, { tiedChannels }) => sum + tiedChannels.length, 0);
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    const told = (
      name: 'boards' | 'sparesChannels' | 'worstMv',
      label: string,
      unit: string,
      value: number,
    ): Figure => ({
      id: figureId('monitoring.map', subject, name),
      label,
      unit,
      value: result === null ? null : value,
      gaps: run.gaps,
      working: result === null ? [] : run.working(),
    });
    const words = {
      'service-disconnect': 'service disconnect',
      fuse: 'fuse',
      contactor: 'contactor',
      link: 'cable',
    };
    const say = (list: BmsMapResult['straddles']) =>
      list
        .map(
          ({ board, afterModule, kind, mvAtPeak }) =>
            `${named(board)} reaches over the ${words[kind]} behind ${modules[afterModule]?.tag ?? afterModule}: ${n(mvAtPeak)} mV at the peak.`,
        )
        .join(' ');
    const unserved = own.length === 0 ? strings[subject]!.modules.length : 0;
    const below = (result?.boards ?? []).filter(({ id, cells }) => {
      const part = parts[read.at('boards')?.[id]?.unit ?? ''];
      return part?.kind === 'unit' && cells.length < part.data.minChannels;
    });
    return {
      figures: [
        told('boards', `Boards in use for ${tag}`, '', result?.boards.length ?? 0),
        ...run.figures('monitoring.map', subject, [
          { name: 'wires', label: `Sense wires of ${tag}`, unit: '' },
          { name: 'cellsLeft', label: `Cells of ${tag} that nobody reads`, unit: '' },
        ]),
        told('sparesChannels', `Channels of ${tag} that are tied`, '', spare),
        told('worstMv', `Most that a break adds to a reading of ${tag}`, 'mV', worst),
      ],
      ...(run.input !== null && { run: { calculator: 'bms-map', input: run.input, result } }),
      checks: [
        judge(
          monitoringRules.unwatched,
          [subject],
          [],
          unserved > 0 ? `No board is given for ${tag} with ${n(unserved)} modules.` : null,
          [v('modules that nobody watches', unserved)],
        ),
        judge(
          bmsMapRules.left,
          [subject],
          unserved > 0 ? [] : run.gaps,
          result !== null && result.cellsLeft > 0 ? `${n(result.cellsLeft)} cells of ${tag} are left.` : null,
          [v('cells left', result?.cellsLeft ?? 0)],
        ),
        judge(
          bmsMapRules.below,
          [subject],
          unserved > 0 ? [] : run.gaps,
          below.length > 0
            ? below
                .map(
                  ({ id, cells }) => `${named(id)} reads ${n(cells.length)} cells; fewer than it works with.`,
                )
                .join(' ')
            : null,
          below.map(({ id, cells }) => v(`cells of ${named(id)}`, cells.length)),
        ),
        judge(
          monitoringRules.straddle,
          [subject],
          unserved > 0 ? [] : run.gaps,
          hard.length > 0 ? say(hard) : null,
          hard.map(({ board, mvAtPeak }) => v(`over the break at ${named(board)}`, mvAtPeak, 'mV')),
        ),
        judge(
          bmsMapRules.straddle,
          [subject],
          unserved > 0 ? [] : run.gaps,
          soft.length > 0 ? say(soft) : null,
          soft.map(({ board, mvAtPeak }) => v(`over the cable at ${named(board)}`, mvAtPeak, 'mV')),
        ),
      ],
    };
  },
};

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
    // The pair is one finding, said at the first of the two.
    const twins = Object.keys(boards).filter(
      (id) => id !== subject && board.address !== undefined && boards[id]!.address === board.address,
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
    const modules = read.at('modules');
    const string = read.at('strings')[board.string ?? ''];
    const boxes = new Set((string?.modules ?? []).map((id) => modules[id]?.box));
    const foreign = board.box !== undefined && string !== undefined && !boxes.has(board.box);
    const chain = board.string === undefined ? [] : boardsOf({ boards }, board.string);
    // A lead of the harness: by the sense leads of the string, or of all.
    const sense = Object.values(read.at('pack').sense ?? {});
    const lead =
      sense.find((one) => one.string === board.string) ?? sense.find((one) => one.string === undefined);
    const lengths = Object.entries(read.at('senseWires') ?? {}).flatMap(([id, { lengthM }]) =>
      id.startsWith(`${subject}/`) && lengthM !== undefined ? [lengthM] : [],
    );
    const lengthM = lengths.length === 0 ? null : Math.max(...lengths);
    const inputs = new Inputs(read);
    inputs.missing(...noUnit);
    if (lead?.areaMm2 === undefined)
      inputs.missing({ kind: 'not-given', path: 'pack.sense', label: 'area of the sense leads' });
    if (lengthM === null)
      inputs.missing({ kind: 'not-given', path: 'senseWires', label: `length of the sense wires of ${tag}` });
    inputs.set(
      'bleedA',
      data?.bleedA ?? 0,
      { kind: 'document', path: `boards.${subject}.unit` },
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
      figures: run.figures('monitoring.board', subject, [
        { name: 'errorMv', label: `Reading low while ${tag} bleeds`, unit: 'mV' },
      ]),
      checks: [
        judge(
          monitoringRules.bleed,
          [subject],
          [...gaps, ...noUnit],
          data !== null && layout !== null && data.bleedA > leadA * (1 + 1e-9)
            ? `${tag} bleeds ${n(data.bleedA)} A; leads of ${layout.part.label} carry ${n(leadA)} A.`
            : null,
          [v('bleeds', data?.bleedA ?? 0, 'A'), v('leads carry', leadA, 'A')],
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
        ),
        judge(
          monitoringRules.plugs,
          [subject],
          noUnit,
          alike.length > 0 && subject < alike[0]!
            ? `${n(alike.length + 1)} boards in ${read.at('boxes', board.box!)?.tag ?? ''}: ${[tag, ...alike.map((id) => boards[id]!.tag)].join(', ')}.`
            : null,
          [v('boards', alike.length + 1)],
          { parts: keys },
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
          data !== null && !data.isolatedLink && chain.length > 1
            ? `${tag} is one of ${n(chain.length)} in its chain.`
            : null,
          [v('boards in the chain', chain.length)],
          { parts: keys },
        ),
      ],
    };
  },
};

/** Temperature sensors of the pack, and what the monitor does that balancing does not want. */
export const sensorsStep: StepDefinition = {
  id: 'monitoring.sensors',
  version: 1,
  subjects: (design) => (saysSensing(design) || Object.keys(design.sensors ?? {}).length > 0 ? ['pack'] : []),
  compute(subject, read) {
    const sensors = Object.entries(read.at('sensors') ?? {});
    const boards = read.at('boards') ?? {};
    const parts = read.at('parts');
    const nowhere = sensors.filter(([, { module, board }]) => module === undefined || board === undefined);
    const seen = new Set(sensors.map(([, { module }]) => module));
    const strung = Object.values(read.at('strings')).flatMap((one) => one.modules);
    const blind = strung.filter((id) => !seen.has(id));
    const over = Object.keys(boards).flatMap((id) => {
      const part = parts[boards[id]!.unit ?? ''];
      const count = sensors.filter(([, { board }]) => board === id).length;
      return part?.kind === 'unit' && count > part.data.sensors
        ? [{ tag: boards[id]!.tag, count, reads: part.data.sensors }]
        : [];
    });
    const school = read.at('pack').balance?.school;
    const from = read.at('limits')?.balanceFromV;
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    return {
      figures: [],
      checks: [
        judge(
          monitoringRules.place,
          [subject],
          [],
          nowhere.length > 0
            ? `${n(nowhere.length)} without a place: ${nowhere.map(([, { tag }]) => tag).join(', ')}.`
            : null,
          [v('without a place', nowhere.length)],
        ),
        judge(
          monitoringRules.sensors,
          [subject],
          strung.length === 0 ? [{ kind: 'not-given', path: 'strings', label: 'strings' }] : [],
          blind.length > 0 ? `${n(blind.length)} of ${n(strung.length)} modules have none.` : null,
          [v('without', blind.length), v('modules', strung.length)],
        ),
        judge(
          monitoringRules.many,
          [subject],
          [],
          over.length > 0
            ? over.map((one) => `${one.tag} reads ${n(one.reads)}; ${n(one.count)} are on it.`).join(' ')
            : null,
          over.flatMap((one) => [v(`reads, ${one.tag}`, one.reads), v(`on it, ${one.tag}`, one.count)]),
        ),
        judge(
          monitoringRules.bottom,
          [subject],
          [],
          school === 'bottom' && from !== undefined
            ? `The monitor bleeds from ${n(from)} V; the cells are level at empty.`
            : null,
          [v('balances from', from ?? 0, 'V')],
        ),
      ],
    };
  },
};

/** A donor’s monitor on this pack: what it assumes, and what it will misreport. */
export const donorStep: StepDefinition = {
  id: 'monitoring.donor',
  version: 1,
  subjects: ({ sensing }) => (sensing?.school === 'donor' ? ['pack'] : []),
  compute(subject, read) {
    const { donorCells, donorAh, donorMinV, donorMaxV, donorSensors } = read.at('sensing') ?? {};
    const { layout, gaps } = readPackLayout(read);
    const unsaid: Gap[] = (
      [
        ['donorCells', donorCells, 'cells in series'],
        ['donorAh', donorAh, 'capacity'],
      ] as const
    ).flatMap(([field, value, label]) =>
      value === undefined
        ? [{ kind: 'not-given' as const, path: `sensing.${field}`, label: `${label} of the donor` }]
        : [],
    );
    const cell = layout?.part.data.cell;
    const ah =
      layout === null || cell === undefined
        ? null
        : cell.capacityAh * layout.part.data.cellsInParallel * layout.strings;
    // What it counts in ampere-hours it tells in shares of its own pack.
    const error = ah === null || donorAh === undefined ? null : ah / donorAh - 1;
    const said: string[] = [];
    if (layout !== null && donorCells !== undefined && donorCells !== layout.seriesCells)
      said.push(
        `it expects ${n(donorCells)} cells and finds ${n(layout.seriesCells)}: it reports missing cells, and its pack voltage is off by ${n(Math.abs(donorCells / layout.seriesCells - 1) * 100)} %`,
      );
    if (error !== null && Math.abs(error) > 0.02)
      said.push(
        `over a whole charge of ${n(ah!)} Ah it counts ${n(Math.abs(error) * 100)} % too ${error > 0 ? 'much' : 'little'}, for it knows ${n(donorAh!)} Ah`,
      );
    if (cell !== undefined && donorMaxV !== undefined && donorMaxV > cell.maxV + 1e-9)
      said.push(`its limit of ${n(donorMaxV)} V lies above the cell’s ${n(cell.maxV)} V`);
    if (cell !== undefined && donorMinV !== undefined && donorMinV < cell.minV - 1e-9)
      said.push(`its limit of ${n(donorMinV)} V lies below the cell’s ${n(cell.minV)} V`);
    const count = Object.keys(read.at('sensors') ?? {}).length;
    if (donorSensors !== undefined && count > 0 && donorSensors !== count)
      said.push(`it expects ${n(donorSensors)} sensors; there are ${n(count)}`);
    const figure: Figure = {
      id: figureId('monitoring.donor', subject, 'chargeErrorFraction'),
      label: 'Donor monitor counts charge wrong by',
      unit: 'fraction',
      value: error,
      gaps: error !== null ? [] : [...gaps, ...unsaid],
      working:
        error === null
          ? []
          : [
              {
                symbol: 'e',
                label: 'Donor monitor counts charge wrong by',
                formula: 'Q/Q_d − 1',
                inputs: [
                  { symbol: 'Q', value: ah!, unit: 'Ah' },
                  {
                    symbol: 'Q_d',
                    value: donorAh!,
                    unit: 'Ah',
                    origin: { kind: 'document', path: 'sensing.donorAh' },
                  },
                ],
                value: error,
                unit: 'fraction',
                source: 'Capacity of this pack over that of the donor’s',
              },
            ],
    };
    return {
      figures: [figure],
      checks: [
        judge(
          monitoringRules.donor,
          [subject],
          [...gaps, ...unsaid],
          said.length > 0 ? `${said.join('; ')}.`.replace(/^./, (first) => first.toUpperCase()) : null,
          [
            { label: 'donor: cells', value: donorCells ?? 0, unit: '' },
            { label: 'cells', value: layout?.seriesCells ?? 0, unit: '' },
            {
              label: 'voltage off by',
              value: Math.abs((donorCells ?? 0) / (layout?.seriesCells ?? 1) - 1) * 100,
              unit: '%',
            },
            { label: 'donor: capacity', value: donorAh ?? 0, unit: 'Ah' },
            { label: 'capacity', value: ah ?? 0, unit: 'Ah' },
            { label: 'counts wrong by', value: Math.abs(error ?? 0) * 100, unit: '%' },
            { label: 'donor: at most', value: donorMaxV ?? 0, unit: 'V' },
            { label: 'cell at most', value: cell?.maxV ?? 0, unit: 'V' },
            { label: 'donor: at least', value: donorMinV ?? 0, unit: 'V' },
            { label: 'cell at least', value: cell?.minV ?? 0, unit: 'V' },
            { label: 'donor: sensors', value: donorSensors ?? 0, unit: '' },
            { label: 'sensors', value: count, unit: '' },
          ],
        ),
      ],
    };
  },
};
