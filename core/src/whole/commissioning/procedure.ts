import { laid, type Design } from '../../model/document';
import { Builder, type ProcedureStep, type Template } from '../../model/procedure';
import type { Evaluation } from '../../model/step';
import { gates } from '../../record';
import { rooms } from '../../rooms';

const procedures = rooms.flatMap((room) => room.procedures);

/** Every template there is, by id. */
const templates: Readonly<Record<string, Template>> = Object.assign(
  {},
  ...procedures.map((one) => one.templates),
);

/** The template that a step was made by. */
export const templateOf = ({ template }: Pick<ProcedureStep, 'template'>): Template => templates[template]!;

const place = new Map(gates.map(({ id }, i) => [id, i]));

/**
 * The procedure for a design: what to do, in which gate, and what is expected, with what it rests on. Gates come in
 * their order, and within one the rooms in the order of the job.
 */
export function procedureFor(asDrawn: Design, evaluation: Evaluation): ProcedureStep[] {
  const builder = new Builder(laid(asDrawn), evaluation);
  for (const { steps } of procedures) steps(builder);
  return builder.steps.sort((a, b) => place.get(a.gate)! - place.get(b.gate)!);
}
