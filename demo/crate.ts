import { arrivedId } from '@torvek/core/record';
import { technician } from './shop';
import type { StoryLine } from './story';

/** The bus’s crate: twenty modules of one donor, of which sixteen were chosen. All invented. */
const serials = [...Array.from({ length: 19 }, (_, i) => `BW 40-${1171 + i}`), 'BW 40-2203'];

/** The number of the entry by which the crate arrives: the second of the story. */
const arrivalSeq = 2;
export const thingIn = (serial: string): string => arrivedId(arrivalSeq, serials.indexOf(serial));

export const crate = { failed: 'BW 40-1187', spare: 'BW 40-2203' };

/** Arrives, and sixteen of it are fitted: in their order, the one that fails later in the last place. */
export function crateArrives(places: readonly { id: string }[]): StoryLine[] {
  const chosen = serials.filter((serial) => serial !== crate.failed).slice(0, places.length - 1);
  return [
    {
      at: '2026-10-26T08:30:00Z',
      by: technician,
      entry: {
        kind: 'arrival',
        items: serials.map((serial) => ({
          part: 'brackwater-m12@1',
          serial,
          donor: 'Delivery van, 41 000 km',
          ...(serial === crate.failed && { note: 'Case scratched at the coolant face.' }),
        })),
      },
    },
    ...[...chosen, crate.failed].map((serial, i): StoryLine => ({
      at: `2026-10-26T08:${String(35 + i).padStart(2, '0')}:00Z`,
      by: technician,
      entry: { kind: 'fit', item: thingIn(serial), place: places[i]!.id, reason: 'Chosen from the crate.' },
    })),
  ];
}
