import { describe, expect, test } from '@jest/globals';
import { ref } from 'vue';
import { cellText, readBlock, readCell, shownNumber, type GridColumn } from './columns';
import { useSelection } from './selection';

const plain = { unit: 'm', scale: 1, offset: 0 };

describe('cells', () => {
  test('numbers with units and arithmetic, converted to what is stored', () => {
    expect(readCell({ kind: 'number' }, '2*35 mm', plain)).toEqual({ ok: true, value: 0.07 });
    expect(readCell({ kind: 'number' }, '68', { unit: 'µF', scale: 1e-6, offset: 0 })).toEqual({
      ok: true,
      value: 0.000068,
    });
    expect(readCell({ kind: 'number' }, '212', { unit: '°F', scale: 1 / 1.8, offset: 32 })).toEqual({
      ok: true,
      value: 100,
    });
    expect(readCell({ kind: 'number' }, '  ', plain)).toEqual({ ok: true, value: undefined });
  });
  test('what cannot be read, or lies beyond all numbers, is refused', () => {
    expect(readCell({ kind: 'number' }, 'far', plain).ok).toBe(false);
    expect(readCell({ kind: 'number' }, '2e9', plain)).toEqual({ ok: false, message: 'is beyond ±1e9' });
    expect(readCell({ kind: 'text', required: true }, ' ', plain).ok).toBe(false);
  });
  test('“>” is the end of a range where an instrument reads, and no number elsewhere', () => {
    const over = () => 'rows.a.over.value';
    expect(readCell({ kind: 'number', over }, '> 2000', plain)).toEqual({
      ok: true,
      value: 2000,
      over: true,
    });
    expect(readCell({ kind: 'number', over }, '2000', plain)).toEqual({ ok: true, value: 2000, over: false });
    expect(readCell({ kind: 'number', over }, 'OL', plain).ok).toBe(false);
    expect(readCell({ kind: 'number' }, '>2000', plain)).toEqual({ ok: false, message: 'is no number' });
    const column: GridColumn<object> = {
      id: 'value',
      title: 'value',
      label: 'Value',
      kind: 'number',
      over,
      path: () => 'rows.a.value',
    };
    const as = { ...plain, converted: false };
    const sheet = (flag?: true) => ({ rows: { a: { value: 2000, over: { value: flag } } } });
    expect(cellText(sheet(true), column, {}, as)).toBe('>2000');
    expect(cellText(sheet(), column, {}, as)).toBe('2000');
  });

  test('show what they hold to the last digit, except where they are converted', () => {
    const as = { scale: 1, offset: 0, converted: false };
    expect(shownNumber(0.1234567891, as)).toBe('0.1234567891');
    expect(shownNumber(5.2, { scale: 0.3048, offset: 0, converted: true })).toBe('17.0604');
    expect(shownNumber(undefined, as)).toBe('');
  });
  test('a block has rows by line and cells by tab, whatever ends its lines', () => {
    expect(readBlock('1\t2\r\n3\t4\r\n')).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(readBlock('\t')).toEqual([['', '']]);
  });
});

describe('a selection', () => {
  const of = (rows: number, columns: number) => useSelection(ref({ rows, columns }));
  test('stays inside the grid', () => {
    const { at, move } = of(3, 2);
    move(-1, -1);
    expect(at.value).toEqual({ row: 0, column: 0 });
    move(99, 99);
    expect(at.value).toEqual({ row: 2, column: 1 });
  });
  test('grows from where it began, in either direction', () => {
    const { goTo, move, block, isSelected, collapse } = of(5, 5);
    goTo({ row: 2, column: 2 });
    move(-1, 0, true);
    move(0, 2, true);
    expect(block.value).toEqual({ top: 1, bottom: 2, left: 2, right: 4 });
    expect([isSelected(2, 2), isSelected(1, 4), isSelected(3, 2)]).toEqual([true, true, false]);
    collapse();
    expect(block.value).toEqual({ top: 1, bottom: 1, left: 4, right: 4 });
  });
  test('steps in reading order and says when it would leave', () => {
    const { step, at } = of(2, 2);
    expect([step(1), step(1), at.value]).toEqual([true, true, { row: 1, column: 0 }]);
    expect([step(1), step(1)]).toEqual([true, false]);
    expect(of(2, 2).step(-1)).toBe(false);
  });
});
