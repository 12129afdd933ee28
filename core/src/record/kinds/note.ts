import { defineKind } from '../kind';
import { words } from '../shapes';

/** Something worth keeping: words and files. */
export interface NoteBody {
  kind: 'note';
  text: string;
}

export const note = defineKind<NoteBody>({
  kind: 'note',
  many: 'notes',
  fields: { text: words(4000) },
  stands: 'never',
  title: ({ text }) => text,
});
