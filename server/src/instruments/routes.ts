import { day, oneOf, orNull, record, text } from '@torvek/core/shape';
import { instrumentKinds } from '@torvek/core/record';
import { route, signedIn, type Route } from '../http/route';
import type { Instruments, RegisteredInstrument } from './instruments';

const due = orNull(day.optional());

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
          calibrationDue: due,
        }),
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
        schema: record({ calibrationDue: due, retired: oneOf([true, false]) }),
      },
      handle: (call) => {
        const { retired, calibrationDue = null } = call.body;
        return instruments.change(call.params.instrument!, { retired, calibrationDue }, signedIn(call).name);
      },
    }),
  ];
}
