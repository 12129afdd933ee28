import { oneOf, text } from '@torvek/core/shape';
import { isModule, looks, seenFields, type Look, type Seen } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';
import { fittedIn, stockAt } from '../things';

export interface IntakeRequest extends Seen {
  kind: 'intake';
  /** A place of the design, or a thing on the shelf. */
  module: string;
  serial?: string;
  look?: Look;
  /** The serial was read wrongly before: it is the same thing. */
  same?: true;
  remark?: string;
}

export const intake = defineJudge<IntakeRequest>({
  fields: {
    module: text(80),
    serial: text.optional(80),
    look: oneOf.optional(looks),
    ...seenFields,
    same: oneOf.optional([true]),
    remark: text.optional(2000),
  },
  judge({ request: { module, serial, look, same, remark, ...request }, bench }) {
    const { job } = bench;
    const named = stockAt(bench).items.get(module);
    const shelved = named !== undefined && isModule(named) && named.place === null && named.sentTo === null;
    if (!shelved && !Object.hasOwn(job.design.modules, module))
      throw invalidInput([{ path: 'module', message: 'is no module of this design' }]);
    const item = shelved ? named : fittedIn(bench, module);
    if (serial !== undefined && item?.serial != null && item.serial !== serial && same !== true)
      throw new HttpError(
        409,
        'another-serial',
        `${item.serial} is fitted there: swap it in Stock, or say that its serial was misread`,
      );
    const other = [...stockAt(bench).items.values()].find(
      (one) => one.serial === serial && one.id !== item?.id,
    );
    if (serial !== undefined && other !== undefined)
      throw invalidInput([{ path: 'serial', message: 'is that of another thing' }]);
    return {
      subjects: shelved ? [{ id: module, tag: named.serial ?? module }] : namedSubjects(job, [module]),
      body: {
        kind: 'intake',
        serial: serial ?? null,
        look: look ?? null,
        ...seenOf(request),
        ...(same === true && { same }),
        ...(remark !== undefined && { remark }),
      },
    };
  },
});

/** What was seen, and nothing that was left out. */
function seenOf({ dateCode, drained, seals, terminals }: Seen): Seen {
  return {
    ...(dateCode !== undefined && { dateCode }),
    ...(drained !== undefined && { drained }),
    ...(seals !== undefined && { seals }),
    ...(terminals !== undefined && { terminals }),
  };
}
