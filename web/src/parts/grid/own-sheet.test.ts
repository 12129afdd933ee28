import { setAt } from '@torvek/core/document';
import { describe, expect, jest, test } from '@jest/globals';
import { ref } from 'vue';
import { ownSheet, sheetUndo, type SheetHistory } from './own-sheet';

describe('a sheet beside the design', () => {
  test('hands over a copy with the edits in it, and leaves what is shown as it was', () => {
    let data: { volts: Record<string, number | undefined> } = { volts: { a: 1, b: 2 } };
    const before = data;
    const sheet = ownSheet(
      () => data,
      () => true,
      (draft) => (data = draft),
      () => undefined,
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
      () => undefined,
    );
    sheet.preview((draft) => setAt(draft, 'a', 2));
    expect(take).not.toHaveBeenCalled();
    expect([sheet.editable, sheet.shown]).toEqual([false, { a: 1 }]);
  });
});

describe('the undo of a sheet', () => {
  const started = () => {
    const kept = ref<Record<string, number>>({});
    const history = ref<SheetHistory<Record<string, number>>>({ past: [], future: [] });
    return { kept, history, back: sheetUndo(kept, history) };
  };

  test('takes gestures back and forth again; a new one ends what could be repeated', () => {
    const { kept, history, back } = started();
    back.take({ a: 1 });
    back.take({ a: 1, b: 2 });
    back.undo(false);
    expect(kept.value).toEqual({ a: 1 });
    back.undo(true);
    expect(kept.value).toEqual({ a: 1, b: 2 });
    back.undo(true);
    expect(kept.value).toEqual({ a: 1, b: 2 });
    back.undo(false);
    back.undo(false);
    back.undo(false);
    expect(kept.value).toEqual({});
    back.take({ c: 3 });
    back.undo(true);
    expect([kept.value, history.value]).toEqual([{ c: 3 }, { past: [{}], future: [] }]);
    back.forget();
    back.undo(false);
    expect(kept.value).toEqual({ c: 3 });
  });

  test('what lay in the browser is taken up again, and the oldest goes where it grows too large', () => {
    const { kept, history, back } = started();
    back.take({ a: 1 });
    const again = sheetUndo(kept, history);
    again.undo(false);
    expect(kept.value).toEqual({});
    for (let i = 0; i < 60; i += 1) again.take({ i });
    expect(history.value.past).toHaveLength(50);
    expect(history.value.past[0]).toEqual({ i: 9 });
    const wide = (i: number) => Object.fromEntries(Array.from({ length: 9000 }, (_, k) => [`cell-${k}`, i]));
    for (let i = 0; i < 5; i += 1) again.take(wide(i));
    expect(JSON.stringify(history.value.past).length).toBeLessThan(420_000);
    again.undo(false);
    expect(kept.value['cell-1']).toBe(3);
  });
});
