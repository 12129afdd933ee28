import { list, number, oneOf, record, table, text } from '@torvek/core/calculator';
import { unrecordable } from '@torvek/core/record';
import { route, type Route } from '../http/route';
import { judgeRequest, type EntryRequest } from './judge';
import type { Ledger } from './ledger';

const instant = text(40);
const common = {
  kind: oneOf(['result', 'acceptance', 'position', 'work', 'correction']),
  id: text(80),
  takenAt: instant,
  by: text(80),
};

const measured = record.by((value): Record<string, ReturnType<typeof record>> =>
  value.kind === 'trace'
    ? {
        kind: oneOf(['trace']),
        samples: table({ columns: [{}, {}], minRows: 8, maxRows: 20_000 }),
        packVoltageV: number({ above: 0 }),
        unit: oneOf(['V']),
      }
    : { kind: oneOf(['value']), value: number(), unit: text(20) },
);

const instrument = record({
  kind: oneOf(['meter', 'insulation-tester', 'scope']),
  name: text(120),
  standIn: oneOf([true, false]),
  behaviour: text.optional(40),
});

const fields: Record<string, Record<string, ReturnType<typeof record>>> = {
  result: {
    step: text(160),
    measured,
    entered: oneOf(['stand-in', 'typed', 'pasted']),
    instrument,
    remark: text.optional(2000),
  },
  acceptance: { check: text(300), reason: text(2000) },
  position: {
    linksOut: number({ min: 0, max: 10_000, integer: true }),
    serviceDisconnect: oneOf(['out', 'in']),
    mains: oneOf(['open', 'closed']),
    remark: text.optional(2000),
  },
  work: { what: text(2000), subjects: list(text(80), { minRows: 1, maxRows: 500 }) },
  correction: { of: number({ min: 1, integer: true }), reason: text(2000) },
};

/** The record of a job: read, append, verify. */
export function entryRoutes(ledger: Ledger): Route[] {
  return [
    route({
      method: 'get',
      path: '/jobs/:job/entries',
      role: 'technician',
      handle: ({ params }) => ledger.list(params.job!),
    }),
    route<EntryRequest>({
      method: 'post',
      path: '/jobs/:job/entries',
      role: 'technician',
      door: {
        schema: (body) =>
          record({
            ...common,
            ...(Object.hasOwn(fields, String(body.kind)) ? fields[String(body.kind)] : {}),
          }),
        cross(input: EntryRequest, issue) {
          if (Number.isNaN(Date.parse(input.takenAt))) issue('takenAt', 'must be a time (ISO 8601)');
          const bad = unrecordable(input);
          if (bad !== null) issue(bad, 'holds a character that cannot be recorded');
        },
      },
      handle: ({ params, body }) =>
        ledger.append(params.job!, body.id, (job, entries) => judgeRequest(body, job, entries)),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/verify',
      role: 'technician',
      handle: ({ params }) => ledger.verify(params.job!),
    }),
  ];
}
