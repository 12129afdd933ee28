import { list, oneOf, record, text } from '@torvek/core/shape';
import { assess } from '@torvek/core/design';
import { gates, soloMeasures, type SoloMeasure } from '@torvek/core/record';
import { invalidInput } from '../../http/errors';
import { evaluatedAsBuilt } from '../../jobs/evaluated';
import { refuseClosedGate } from '../closed-gate';
import { defineJudge } from '../court';

/** The second person at an HV gate, with their own password. */
export interface WitnessWord {
  name: string;
  password: string;
  /** Of their second factor, when they have one. */
  code?: string;
}

export interface GateRequest {
  kind: 'gate';
  gate: string;
  witness?: WitnessWord;
  alone?: { replacedBy: SoloMeasure[]; how: string };
}

/** Opens an HV gate: by a second person with their own password, or alone with what replaces them. */
export const gate = defineJudge<GateRequest>({
  fields: {
    gate: oneOf(gates.map(({ id }) => id)),
    witness: record.optional({
      name: text(80),
      password: text(200),
      code: text.optional(40, { min: 0 }),
    }),
    alone: record.optional({
      replacedBy: list(oneOf(soloMeasures), { minRows: 1, maxRows: soloMeasures.length }),
      how: text(2000, { min: 10 }),
    }),
  },
  cross(request, issue) {
    if ((request.witness === undefined) === (request.alone === undefined))
      issue('witness', 'or else alone: one of the two must be given');
  },
  judge({ request, bench, court }) {
    const { id, title, hv } = gates.find((one) => one.id === request.gate)!;
    if (!hv)
      throw invalidInput([
        { path: 'gate', message: 'asks for no second person: nothing there is at high voltage' },
      ]);
    const { evaluation, procedure } = evaluatedAsBuilt(bench.job, bench.entries);
    refuseClosedGate(id, assess(evaluation, procedure, bench.entries, { practice: bench.job.demo }));
    const body = { kind: 'gate' as const, gate: id, title };
    if (request.alone !== undefined) return { body: { ...body, alone: request.alone } };
    const { name, passwordBy } = court.witness!;
    return {
      witness: name,
      body: { ...body, alone: null, ...(passwordBy !== null && { witnessPassword: passwordBy }) },
    };
  },
});
