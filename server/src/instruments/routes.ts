import { oneOf, record, text } from '@torvek/core/calculator';
import { instrumentKinds } from '@torvek/core/record';
import * as yup from 'yup';
import { route, signedIn, type Route } from '../http/route';
import type { Instruments, RegisteredInstrument } from './instruments';

type Issue = (path: string, message: string) => void;

/** A day that is on the calendar, or null. */
function checkDay(day: string | null, issue: Issue): void {
  if (day === null) return;
  const real = /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(Date.parse(day));
  if (!real || new Date(day).toISOString().slice(0, 10) !== day)
    issue('calibrationDue', 'must be a day as YYYY-MM-DD');
}

const day = yup
  .mixed()
  .nullable()
  .test(
    'day',
    'must be a day as YYYY-MM-DD, or null',
    (value) => value === null || typeof value === 'string',
  );

/** The register of instruments. */
export function instrumentRoutes(instruments: Instruments): Route[] {
  return [
    route({ method: 'get', path: '/instruments', role: 'witness', handle: () => instruments.list() }),
    route<Omit<RegisteredInstrument, 'retired'>>({
      method: 'post',
      path: '/instruments',
      role: 'designer',
      door: {
        schema: record({
          id: text(80),
          kind: oneOf(instrumentKinds),
          name: text(120),
          serial: text(80),
          calibrationDue: day,
        }),
        cross: (input: RegisteredInstrument, issue) => checkDay(input.calibrationDue ?? null, issue),
      },
      handle: (call) =>
        instruments.create(
          { ...call.body, calibrationDue: call.body.calibrationDue ?? null },
          signedIn(call).name,
        ),
    }),
    route<{ calibrationDue: string | null; retired: boolean }>({
      method: 'patch',
      path: '/instruments/:instrument',
      role: 'designer',
      door: {
        schema: record({ calibrationDue: day, retired: oneOf([true, false]) }),
        cross: (input: RegisteredInstrument, issue) => checkDay(input.calibrationDue ?? null, issue),
      },
      handle: (call) => {
        const { retired, calibrationDue = null } = call.body;
        return instruments.change(call.params.instrument!, { retired, calibrationDue }, signedIn(call).name);
      },
    }),
  ];
}
