import { aboutSubjects, defineKind } from '../kind';
import { words } from '../shapes';

/** Work that was done; makes results on its subjects due again. */
export interface WorkBody {
  kind: 'work';
  what: string;
}

export const work = defineKind<WorkBody>({
  kind: 'work',
  many: 'work',
  fields: { what: words(2000) },
  stands: 'newest',
  topic: aboutSubjects,
  title: ({ what }) => what,
});
