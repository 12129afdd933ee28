import { oneOf, text } from '@torvek/core/calculator';
import { looks, type Look } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';
import { fittedIn, stockAt } from '../things';

export interface IntakeRequest {
  kind: 'intake';
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
    same: oneOf.optional([true]),
    remark: text.optional(2000),
  },
  judge({ request: { module, serial, look, same, remark }, bench }) {
    const { job } = bench;
    if (!Object.hasOwn(job.design.modules, module))
      throw invalidInput([{ path: 'module', message: 'is no module of this design' }]);
    const item = fittedIn(bench, module);
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
      subjects: namedSubjects(job, [module]),
      body: {
        kind: 'intake',
        serial: serial ?? null,
        look: look ?? null,
        ...(same === true && { same }),
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
