import { figureId, type Figure } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { oneLeadOhm } from '../pack';
import { bmsMap, bmsMapRules, type BmsMapInput, type BmsMapResult } from './bms-map';
import { boardsOf, mapInput } from './map-inputs';
import { monitoringRules } from './rules';

const n = formatNumber;

/** What is said of monitoring: then every string is asked. */
export const saysSensing = (design: { sensing?: { school?: string }; boards?: object }) =>
  (design.sensing !== undefined && design.sensing.school !== 'donor') ||
  Object.keys(design.boards ?? {}).length > 0;

/** The strings whose cells are to be watched. */
export const watchedStrings = (design: Pick<Design, 'sensing' | 'boards' | 'strings'>): Id[] =>
  saysSensing(design)
    ? Object.keys(design.strings).filter((id) => design.strings[id]!.modules.length > 0)
    : [];

/** The map of a string: which board reads which cells, and what it costs where it reaches over a break. */
export const mapStep: StepDefinition = {
  id: 'monitoring.map',
  version: 1,
  subjects: watchedStrings,
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
      name: 'boards' | 'spareChannels' | 'worstMv',
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
        told('spareChannels', `Channels of ${tag} that are tied`, '', spare),
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
          { also: below.map(({ id }) => id) },
        ),
        judge(
          monitoringRules.straddle,
          [subject],
          unserved > 0 ? [] : run.gaps,
          hard.length > 0 ? say(hard) : null,
          hard.map(({ board, mvAtPeak }) => v(`over the break at ${named(board)}`, mvAtPeak, 'mV')),
          { also: hard.map(({ board }) => board) },
        ),
        judge(
          bmsMapRules.straddle,
          [subject],
          unserved > 0 ? [] : run.gaps,
          soft.length > 0 ? say(soft) : null,
          soft.map(({ board, mvAtPeak }) => v(`over the cable at ${named(board)}`, mvAtPeak, 'mV')),
          { also: soft.map(({ board }) => board) },
        ),
      ],
    };
  },
};
