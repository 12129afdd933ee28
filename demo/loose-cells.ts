import { arrivedId } from '@torvek/core/record';
import { technician } from './shop';
import type { StoryLine } from './story';

/** The truck’s cells by the codes on their lids: thirty-eight came, thirty-six are chosen. All invented. */
const codes = Array.from(
  { length: 38 },
  (_, i) => `OL 160 ${2107 + Math.floor(i / 10)}-${String(317 + 13 * i).padStart(4, '0')}`,
);
/** What stays on the shelf, and why. */
const left: Record<string, string | null> = {
  [codes[11]!]: 'Lid bulges by 1.5 mm; the maker allows 1.',
  [codes[37]!]: null,
};

/** The number of the entry by which they arrive: the second of the story. */
const arrivalSeq = 2;
export const cellOf = (code: string): string => arrivedId(arrivalSeq, codes.indexOf(code));
export const spareCells = Object.keys(left);

/** They arrive in their crates, and each takes its place by its own code. */
export function cellsArrive(places: readonly { id: string }[], at: (minutes: number) => string): StoryLine[] {
  const chosen = codes.filter((code) => !(code in left));
  return [
    {
      at: at(0),
      by: technician,
      entry: {
        kind: 'arrival',
        items: codes.map((serial) => ({
          part: 'oakmere-lf160@1',
          serial,
          ...(typeof left[serial] === 'string' && { note: left[serial] }),
        })),
      },
    },
    ...chosen.map((code, i): StoryLine => ({
      at: at(5 + i),
      by: technician,
      entry: {
        kind: 'fit',
        item: cellOf(code),
        place: places[i]!.id,
        reason: 'In the order of their codes.',
      },
    })),
    {
      at: at(5 + chosen.length),
      by: technician,
      entry: {
        kind: 'item-state',
        item: cellOf(spareCells[0]!),
        state: 'rejected',
        reason: 'Bulged; goes back to where it was bought.',
      },
    },
  ];
}
