import { entryOutcome, entryTitle } from '@torvek/core/record';
import { stations } from '@torvek/core/document';
import { formatQuantity } from '@torvek/core/quantity';
import type { Router } from 'vue-router';
import { goToPath } from '../../parts/go-to-path';
import { subjectName } from '../../parts/place-name';
import { stationList } from '../../stations/stations';
import type { useJob } from '../../stores/job';
import type { useSlate } from '../../stores/slate';
import type { Findable } from './search';

interface Context {
  job: ReturnType<typeof useJob>;
  slate: ReturnType<typeof useSlate>;
  router: Router;
}

/** Everything of the open job that can be found: stations, things, parts, steps, figures, findings, entries. */
export function findablesOf({ job, slate, router }: Context): Findable[] {
  const go = (name: string, query: Record<string, string> = {}) =>
    void router.push({ name, params: { job: job.id }, query });
  const thing = (map: string, what: string) =>
    Object.entries((job.design as unknown as Record<string, Record<string, { tag: string }>>)[map] ?? {}).map(
      ([id, { tag }]): Findable => ({
        kind: 'thing',
        title: tag,
        detail: what,
        open: () => void goToPath(router, job.id, map === 'modules' ? 'boxes' : `${map}.${id}.tag`),
      }),
    );
  return [
    ...stations.map((name): Findable => ({
      kind: 'station',
      title: stationList[name].title,
      detail: 'station',
      open: () => go(name),
    })),
    ...thing('circuits', 'circuit').map((one) => ({ ...one, open: () => go('network') })),
    ...thing('boxes', 'box'),
    ...thing('strings', 'string').map((one) => ({ ...one, open: () => go('network') })),
    ...thing('devices', 'device on the bus'),
    ...thing('masses', 'mass'),
    ...thing('modules', 'module'),
    ...thing('joints', 'kind of joint'),
    ...Object.values(job.design.parts).map((part): Findable => ({
      kind: 'part',
      title: part.label,
      detail: `${part.kind} in use, ${part.make} ${part.number}`,
      open: () => go(part.kind === 'module' ? 'pack' : 'protect'),
    })),
    ...job.procedure.map((step): Findable => ({
      kind: 'step',
      title: step.title,
      detail: 'step of the procedure',
      open: () => go('prove', { step: step.id }),
    })),
    ...Object.values(job.evaluation.figures).map((figure): Findable => ({
      kind: 'figure',
      title: figure.label,
      detail: [
        'figure',
        ...[subjectName(job.design, figure.id.split(':')[1] ?? '')].filter((name) => name !== ''),
        figure.value === null ? 'not computed' : formatQuantity(figure.value, figure.unit),
      ].join(', '),
      open: () => slate.showWorking(figure.id),
    })),
    ...job.assessment.findings.map(({ check }): Findable => ({
      kind: 'finding',
      title: check.message,
      detail: `finding, ${check.grade}: ${check.rule.title}`,
      open: () => slate.showFinding(check.key),
    })),
    ...[...job.entries].reverse().map((entry): Findable => ({
      kind: 'entry',
      title: entryTitle(entry.body),
      detail: `entry ${entry.seq}, ${entry.by}, ${entryOutcome(entry)}`,
      open: () => go('book', { entry: String(entry.seq) }),
    })),
  ];
}
