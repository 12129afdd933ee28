import { list, number, record, text, type DoorRules } from '@torvek/core/shape';
import { overviewOf } from '@torvek/core/design';
import { HttpError } from '../http/errors';
import { pageOf } from '../http/page';
import { route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { asItStands } from './as-it-stands';
import type { ChangeRequest } from './changes';
import { operationShape } from './operation-shape';

/** The id of a job also names files, here and wherever it is taken. */
const named: DoorRules = {
  schema: record({ id: text(80), name: text(120) }),
  cross({ id }: { id: string }, issue) {
    if (!/^[\w-]{1,80}$/.test(id)) issue('id', 'may hold letters without accents, digits, _ and -');
  },
};

const change = record({
  id: text(80),
  base: number({ min: 0, integer: true }),
  own: list.optional(text(80), { maxRows: 2000 }),
  label: text(200),
  at: text(40),
  forward: list(operationShape, { minRows: 1, maxRows: 10_000 }),
  inverse: list(operationShape, { minRows: 1, maxRows: 10_000 }),
});

function versionOf(text: string | undefined, path: string): number {
  if (text === undefined || !/^\d{1,9}$/.test(text)) {
    throw new HttpError(422, 'invalid-input', `${path} must be a version number`, [
      { path, message: 'must be a version number' },
    ]);
  }
  return Number(text);
}

/** Jobs: list, new, open, duplicate, rename; their changes and versions. */
export function jobRoutes({
  jobs,
  changes,
  releases,
  ledger,
}: Pick<Rooms, 'jobs' | 'changes' | 'releases' | 'ledger'>): Route[] {
  return [
    route({ method: 'get', path: '/jobs', role: 'witness', handle: () => jobs.list() }),
    route<{ id: string; name: string }>({
      method: 'post',
      path: '/jobs',
      role: 'designer',
      door: named,
      handle: (call) => jobs.create(call.body.id, call.body.name, signedIn(call).name),
    }),
    route({
      method: 'get',
      path: '/jobs/:job',
      role: 'witness',
      handle: ({ params }) => jobs.get(params.job!),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/overview',
      role: 'witness',
      async handle({ params }) {
        const job = await jobs.get(params.job!);
        const { evaluation, assessment, live } = await asItStands({ ledger }, job);
        return overviewOf(job.design, evaluation, assessment, live);
      },
    }),
    route<{ name: string }>({
      method: 'patch',
      path: '/jobs/:job',
      role: 'designer',
      door: { schema: record({ name: text(120) }) },
      handle: (call) => jobs.rename(call.params.job!, call.body.name, signedIn(call).name),
    }),
    route<{ id: string; name: string }>({
      method: 'post',
      path: '/jobs/:job/duplicate',
      role: 'designer',
      door: named,
      handle: (call) => jobs.duplicate(call.params.job!, call.body.id, call.body.name, signedIn(call).name),
    }),
    route<ChangeRequest>({
      method: 'post',
      path: '/jobs/:job/changes',
      role: 'designer',
      door: { schema: change },
      handle: (call) => changes.save(call.params.job!, call.body, signedIn(call).name),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/changes',
      role: 'witness',
      handle: ({ params, query }) => {
        const { before, limit } = pageOf(query);
        return changes.list(params.job!, before, limit);
      },
    }),
    route({
      method: 'get',
      path: '/jobs/:job/versions/:version',
      role: 'witness',
      handle: ({ params }) => changes.at(params.job!, versionOf(params.version, 'version')),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/releases',
      role: 'witness',
      handle: ({ params }) => releases.list(params.job!),
    }),
    route<{ id: string; label: string; version: number }>({
      method: 'post',
      path: '/jobs/:job/releases',
      role: 'designer',
      door: {
        schema: record({ id: text(80), label: text(200), version: number({ min: 0, integer: true }) }),
      },
      handle: (call) => releases.release(call.params.job!, call.body, signedIn(call).name),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/releases/:number',
      role: 'witness',
      handle: ({ params }) => releases.content(params.job!, versionOf(params.number, 'number')),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/compare',
      role: 'witness',
      handle: ({ params, query }) =>
        changes.compare(params.job!, versionOf(query.from, 'from'), versionOf(query.to, 'to')),
    }),
  ];
}
