import { oneOf, text } from '@torvek/core/calculator';
import { looks, type Look } from '@torvek/core/record';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';

export interface IntakeRequest {
  kind: 'intake';
  module: string;
  serial?: string;
  look?: Look;
  remark?: string;
}

export const intake = defineJudge<IntakeRequest>({
  fields: {
    module: text(80),
    serial: text.optional(80),
    look: oneOf.optional(looks),
    remark: text.optional(2000),
  },
  judge({ request: { module, serial, look, remark }, bench: { job } }) {
    if (!Object.hasOwn(job.design.modules, module))
      throw invalidInput([{ path: 'module', message: 'is no module of this design' }]);
    return {
      subjects: namedSubjects(job, [module]),
      body: {
        kind: 'intake',
        serial: serial ?? null,
        look: look ?? null,
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
