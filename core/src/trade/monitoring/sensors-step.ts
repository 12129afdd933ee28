import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { boardMapsView } from './board-map';
import { saysSensing } from './map-step';
import { monitoringRules } from './rules';

const n = formatNumber;

/** The modules whose cells each board reads, of strings whose map can be made. */
const modulesByBoard = (read: Reader): Map<Id, Set<Id>> =>
  new Map(
    Object.values(read.shared(boardMapsView)).flatMap(({ boards }) =>
      (boards ?? []).map(({ id, cells }) => [id, new Set(cells.map(({ module }) => module))] as const),
    ),
  );

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
    const means = sensors.filter(([, { meanOf }]) => (meanOf ?? 1) > 1);
    const seen = new Set(sensors.map(([, { module }]) => module));
    const strung = Object.values(read.at('strings')).flatMap((one) => one.modules);
    const blind = strung.filter((id) => !seen.has(id));
    const over = Object.keys(boards).flatMap((id) => {
      const part = parts[boards[id]!.unit ?? ''];
      const count = sensors.filter(([, { board }]) => board === id).length;
      return part?.kind === 'unit' && count > part.data.sensors
        ? [{ id, tag: boards[id]!.tag, count, reads: part.data.sensors }]
        : [];
    });
    const readsOf = modulesByBoard(read);
    const far = sensors.filter(([, { module, board }]) => {
      const own = board === undefined ? undefined : readsOf.get(board);
      return module !== undefined && own !== undefined && !own.has(module);
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
          { also: nowhere.map(([id]) => id) },
        ),
        judge(
          monitoringRules.sensorFar,
          [subject],
          [],
          far.length > 0
            ? `${n(far.length)} of ${n(sensors.length)}: ${far.map(([, { tag, module, board }]) => `${tag} in ${read.at('modules')[module!]?.tag ?? module!} on ${boards[board!]?.tag ?? board!}`).join(', ')}.`
            : null,
          [v('on a board of other modules', far.length), v('sensors', sensors.length)],
          {
            parts: far.map(([id, { module, board }]) => `${id} ${module} ${board}`),
            also: far.map(([id]) => id),
          },
        ),
        judge(
          monitoringRules.mean,
          [subject],
          [],
          means.length > 0
            ? means.map(([, { tag, meanOf }]) => `${tag} is the mean of ${n(meanOf!)}.`).join(' ')
            : null,
          means.length === 0
            ? [v('that are means', 0)]
            : means.map(([, { tag, meanOf }]) => v(`sensors behind ${tag}`, meanOf!)),
          { also: means.map(([id]) => id) },
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
          { also: over.map(({ id }) => id) },
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
