import { setAt } from '@torvek/core/document';
import { describe, expect, jest, test } from '@jest/globals';
import { ownSheet } from './own-sheet';

describe('a sheet beside the design', () => {
  test('hands over a copy with the edits in it, and leaves what is shown as it was', () => {
    let data: { volts: Record<string, number | undefined> } = { volts: { a: 1, b: 2 } };
    const before = data;
    const sheet = ownSheet(
      () => data,
      () => true,
      (draft) => (data = draft),
    );
    sheet.change('Reading', (draft) => setAt(draft, 'volts.a', 1.5));
    sheet.change('Reading', (draft) => setAt(draft, 'volts.b', undefined));
    expect(data).toEqual({ volts: { a: 1.5 } });
    expect(before).toEqual({ volts: { a: 1, b: 2 } });
    expect(sheet.shown).toBe(data);
    expect(sheet.committed).toBe(data);
  });

  test('what is being typed changes nothing', () => {
    const take = jest.fn();
    const sheet = ownSheet(
      () => ({ a: 1 }),
      () => false,
      take,
    );
    sheet.preview((draft) => setAt(draft, 'a', 2));
    expect(take).not.toHaveBeenCalled();
    expect([sheet.editable, sheet.shown]).toEqual([false, { a: 1 }]);
  });
});
