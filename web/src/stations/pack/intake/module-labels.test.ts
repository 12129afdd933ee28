import { describe, expect, test } from '@jest/globals';
import type { Entry } from '@torvek/core/record';
import { libraryBus } from '../../../../../demo/library-bus';
import { moduleLabels } from './module-labels';

const { design } = libraryBus;
const [place] = Object.keys(design.modules) as [string];
const entry = (seq: number, body: object): Entry =>
  ({ seq, takenAt: '2026-11-20T08:00:00Z', subjects: [], body }) as unknown as Entry;
const arrived = entry(2, {
  kind: 'arrival',
  items: [{ part: 'brackwater-m12@1', serial: 'BW 7', donor: null, price: null, note: null }],
});
const fitted = entry(3, {
  kind: 'fit',
  item: 'item-2-1',
  place,
  serial: 'BW 7',
  former: null,
  formerSerial: null,
  reason: '',
});

describe('labels of modules', () => {
  test('the serial leads, for it goes where the module goes; the place stands below', () => {
    const [label] = moduleLabels(
      'Bus',
      design,
      [arrived, fitted],
      [{ id: place, name: design.modules[place]!.tag }],
    );
    const { tag } = design.modules[place]!;
    expect(label).toEqual({
      title: 'BW 7',
      lines: ['Bus', design.parts['brackwater-m12@1']!.number, `in ${tag}`],
      path: `pack?panel=intake&module=${place}`,
    });
  });

  test('a place nobody told of has its own name; a thing on the shelf its serial and no place', () => {
    expect(moduleLabels('Bus', design, [], [{ id: place, name: 'S1-M01' }])[0]).toMatchObject({
      title: 'S1-M01',
    });
    const [shelf] = moduleLabels('Bus', design, [arrived], [{ id: 'item-2-1', name: 'BW 7' }]);
    expect([shelf!.title, shelf!.lines]).toEqual(['BW 7', ['Bus', design.parts['brackwater-m12@1']!.number]]);
  });
});
