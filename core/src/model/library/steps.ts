import type { Draft } from 'immer';
import { renamePart, type Design } from '../document';
import { defineRule } from '../../ground/finding';
import { impossibleIn, partKey, type Part, type PartKey } from '../parts';
import { judge, type StepDefinition } from '../step';
import { differences } from './differences';

export const newerRevision = defineRule({
  id: 'library.newer-revision',
  version: 1,
  grade: 'note',
  title: 'The library has a newer revision of this part',
  why: 'The design computes with the data it took when the part was chosen; somebody has corrected them since.',
  remedy: 'Compare the two, and take the newer one where it describes the part that is really fitted.',
  source: 'The shop’s library of parts',
});

export const impossibleData = defineRule({
  id: 'library.impossible-data',
  version: 1,
  grade: 'mend',
  title: 'What a part is said to be cannot be',
  why: 'Every figure that reads it is wrong, or is not computed.',
  remedy: 'Look at the maker’s sheet and mend the part in the library, then take its new revision.',
  source: 'What a part of its kind can be',
});

/** Each part in use against the newest revision of the library. */
export const librarySteps: StepDefinition[] = [
  {
    id: 'library.revision',
    version: 1,
    subjects: (design) => Object.keys(design.parts),
    compute(subject, read) {
      const part = read.at('parts', subject);
      if (part === undefined) return { figures: [], checks: [] };
      const newer = (read.parts(part.kind) as readonly Part[]).find(
        ({ id, revision }) => id === part.id && revision > part.revision,
      );
      const changed = newer === undefined ? [] : differences(part, newer);
      const message =
        newer === undefined
          ? null
          : `${part.label} is used at revision ${part.revision}, the library has ${newer.revision}: ${
              changed.map(({ label, from, to }) => `${label} ${from} → ${to}`).join('; ') || 'the same data'
            }.`;
      const offer =
        newer === undefined
          ? []
          : [{ partKey: partKey(newer), label: `Revision ${newer.revision}`, fits: true, reasons: [] }];
      const wrong = impossibleIn(part);
      const values = [
        { label: 'revision in use', value: part.revision, unit: '' },
        { label: 'newest revision', value: newer?.revision ?? part.revision, unit: '' },
      ];
      return {
        figures: [],
        checks: [
          judge(newerRevision, [subject], [], message, values, { suggestions: offer, parts: [subject] }),
          judge(
            impossibleData,
            [subject],
            [],
            wrong.length > 0 ? `${part.label}: ${wrong.map(({ words }) => words).join('; ')}.` : null,
            wrong.map(({ label, unit, value }) => ({ label, value, unit })),
            { parts: [subject] },
          ),
        ],
      };
    },
  },
];

/** Puts another part in every place of the design that uses one: one change takes a newer revision. */
export function replacePart(draft: Draft<Design>, key: PartKey, by: Part): void {
  const next = partKey(by);
  draft.parts[next] ??= JSON.parse(JSON.stringify(by)) as Draft<Part>;
  renamePart(draft, key, next);
  if (next !== key) delete draft.parts[key];
}
