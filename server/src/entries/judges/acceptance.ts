import { text } from '@torvek/core/shape';
import { everyCheck } from '@torvek/core/design';
import type { RaisedCheck } from '@torvek/core/figure';
import { mayDo } from '@torvek/core/record';
import { HttpError } from '../../http/errors';
import { evaluated, evaluatedAsBuilt } from '../../jobs/evaluated';
import { defineJudge } from '../court';
import { subjectsOf } from '../subjects';

export interface AcceptanceRequest {
  kind: 'acceptance';
  check: string;
  reason: string;
}

export const acceptance = defineJudge<AcceptanceRequest>({
  fields: { check: text(300), reason: text(2000) },
  async judge({ request, bench: { job, entries, db }, court }) {
    if (!mayDo(court.by.roles, 'designer'))
      throw new HttpError(403, 'role-too-low', 'accepting a finding asks for the role designer');
    const library = await court.library.library(db);
    const checks = everyCheck(
      evaluated(job, library).evaluation,
      evaluatedAsBuilt(job, entries, library).evaluation,
      job.design,
      entries,
      Date.parse(court.now),
    );
    const check = checks.find(
      (one): one is RaisedCheck => one.key === request.check && one.state === 'raised',
    );
    if (check === undefined)
      throw new HttpError(409, 'not-raised', 'this finding is not raised now: there is nothing to accept');
    const { rule, grade, message, values, parts, subjects } = check;
    const names = subjectsOf(job);
    return {
      subjects: subjects.map((id) => names.get(id) ?? { id, tag: id }),
      body: {
        kind: 'acceptance',
        check: check.key,
        rule: rule.id,
        ruleVersion: rule.version,
        grade,
        message,
        values,
        parts,
        reason: request.reason,
      },
    };
  },
});
