import { list, text } from '@torvek/core/shape';
import { everyTagged } from '@torvek/core/document';
import { invalidInput } from '../http/errors';
import type { Job } from '../jobs/jobs';

export type Subjects = { id: string; tag: string }[];

/** Any number of things of the design, by id. */
export const subjectIds = list(text(80), { maxRows: 500 });

/**
 * Things of the design with the tags they have now.
 *
 * @throws HttpError 422 for what is nothing there
 */
export function namedSubjects(job: Job, ids: readonly string[], field = 'subjects'): Subjects {
  const known = subjectsOf(job);
  return ids.map((id, i) => {
    const subject = known.get(id);
    if (subject === undefined)
      throw invalidInput([{ path: `${field}.${i}`, message: 'is nothing in this design' }]);
    return subject;
  });
}

/** Everything in a design that has a tag, by id. */
export function subjectsOf({ design }: Job): Map<string, { id: string; tag: string }> {
  const tagged = Object.entries(everyTagged(design));
  const fixed: [string, string][] = [
    ['pack', 'pack'],
    ['bus', 'bus'],
    ['vehicle', 'vehicle'],
  ];
  return new Map(
    [...tagged.map(([id, { tag }]): [string, string] => [id, tag]), ...fixed].map(([id, tag]) => [
      id,
      { id, tag },
    ]),
  );
}

/** What an entry about a holder of parts is about; cables and sense leads of the pack are of the pack. */
export const holders = (job: Job, id: string): Subjects =>
  namedSubjects(job, [subjectsOf(job).has(id) ? id : 'pack']);
