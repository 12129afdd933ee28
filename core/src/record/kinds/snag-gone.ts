import { defineKind } from '../kind';
import { seq, words } from '../shapes';

/** A snag is gone. */
export interface SnagGoneBody {
  kind: 'snag-gone';
  of: number;
  how: string;
}

export const snagGone = defineKind<SnagGoneBody>({
  kind: 'snag-gone',
  many: 'snags gone',
  fields: { of: seq, how: words(2000) },
  stands: 'always',
  title: ({ of, how }) => `Snag ${of} is gone: ${how}`,
});
