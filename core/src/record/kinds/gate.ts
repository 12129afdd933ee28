import { list, oneOf, orNull, record, text } from '../../ground/shape';
import { defineKind, shortTopic } from '../kind';
import { words } from '../shapes';

/** What can stand in for the second person when someone works alone. */
export const soloMeasures = ['remote watch', 'photo', 'delay', 'other'] as const;
export type SoloMeasure = (typeof soloMeasures)[number];

/**
 * An HV gate is opened: a second person confirms it, or someone alone records a concession that says what replaces
 * the witness.
 */
export interface GateBody {
  kind: 'gate';
  gate: string;
  title: string;
  /** null: the witness of the entry confirmed. */
  alone: { replacedBy: SoloMeasure[]; how: string } | null;
  /** Somebody else set the witness's password last, then: the word is only as good as that. Absent: they did. */
  witnessPassword?: { by: string; at: string };
}

export const gate = defineKind<GateBody>({
  kind: 'gate',
  many: 'gates',
  fields: {
    gate: text(80),
    title: words(200),
    alone: orNull(record({ replacedBy: list(oneOf(soloMeasures), { maxRows: 10 }), how: words(2000) })),
    witnessPassword: record.optional({ by: text(120), at: text(40) }),
  },
  stands: 'newest',
  topic: ({ body, by }) => shortTopic(`gate:${body.gate}:${by}`),
  title: ({ title, alone }) =>
    alone === null
      ? `Gate “${title}” confirmed by a second person`
      : `Gate “${title}” opened alone: ${alone.replacedBy.join(', ')}`,
  outcome: (_, witness) => (witness === null ? 'solo concession' : `witness ${witness}`),
});
