import { list, oneOf, record, text } from '@torvek/core/shape';
import type { EntryKind } from '@torvek/core/record';
import type { Judge } from './court';
import { judges, type EntryRequest } from './judges';

/** More would hold up the others for too long. */
export const mostReadings = 600;

/** The judge of a request, for any of them. */
export const judgeOf = (kind: EntryKind) => judges[kind] as unknown as Judge<EntryRequest>;

/** The door of an entry request. */
export const entryDoor = {
  schema: (body: Record<string, unknown>) =>
    record({
      kind: oneOf(Object.keys(judges)),
      id: text(80),
      takenAt: text(40),
      attachments: list.optional(text(64), { maxRows: 20 }),
      ...(Object.hasOwn(judges, String(body.kind)) ? judgeOf(body.kind as EntryKind).fields : {}),
    }),
  cross(input: EntryRequest, issue: (path: string, message: string) => void) {
    if (Number.isNaN(Date.parse(input.takenAt))) issue('takenAt', 'must be a time (ISO 8601)');
    judgeOf(input.kind).cross?.(input, issue);
  },
};

/** Readings of a batch: results that do not hang on each other. */
export interface ReadingsRequest {
  readings: Extract<EntryRequest, { kind: 'result' }>[];
}

export const readingsDoor = {
  schema: () =>
    record({
      readings: list(
        record({
          kind: oneOf(['result']),
          id: text(80),
          takenAt: text(40),
          attachments: list.optional(text(64), { maxRows: 20 }),
          ...judgeOf('result').fields,
        }),
        { minRows: 1, maxRows: mostReadings },
      ),
    }),
  cross({ readings }: ReadingsRequest, issue: (path: string, message: string) => void) {
    const ids = new Set<string>();
    readings.forEach(({ id, takenAt }, i) => {
      if (Number.isNaN(Date.parse(takenAt))) issue(`readings.${i}.takenAt`, 'must be a time (ISO 8601)');
      if (ids.has(id)) issue(`readings.${i}.id`, 'stands twice');
      ids.add(id);
    });
  },
};
