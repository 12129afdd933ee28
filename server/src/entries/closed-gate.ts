import type { assess } from '@torvek/core/design';
import { HttpError } from '../http/errors';

/** @throws HttpError 409 when a gate waits for something */
export function refuseClosedGate(id: string, { gates: statuses }: ReturnType<typeof assess>): void {
  const gate = statuses.find((one) => one.id === id);
  if (gate === undefined || gate.open) return;
  throw new HttpError(
    409,
    'gate-closed',
    `the gate “${gate.title}” is closed: it waits for ${gate.waitsFor.join('; ')}`,
  );
}
