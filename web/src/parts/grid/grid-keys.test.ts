import { describe, expect, test } from '@jest/globals';
import { gridAct, leavingAct, type PressedKey } from './grid-keys';

const key = (name: string, held = ''): PressedKey => ({
  key: name,
  ctrlKey: held.includes('c'),
  metaKey: held.includes('m'),
  shiftKey: held.includes('s'),
  altKey: held.includes('a'),
});
const act = (name: string, held = '', editable = true) => gridAct(key(name, held), editable);

describe('keys of a grid', () => {
  test.each([
    ['ArrowUp', -1, 0],
    ['ArrowDown', 1, 0],
    ['ArrowLeft', 0, -1],
    ['ArrowRight', 0, 1],
  ])('%s goes one cell, with Shift takes it along, with Ctrl to the edge', (name, rows, columns) => {
    expect(act(name)).toEqual({ act: 'move', rows, columns, extend: false });
    expect(act(name, 's')).toEqual({ act: 'move', rows, columns, extend: true });
    expect(act(name, 'c')).toEqual({
      act: 'move',
      rows: rows * 10_000,
      columns: columns * 10_000,
      extend: false,
    });
    expect(act(name, 'ms')).toEqual({
      act: 'move',
      rows: rows * 10_000,
      columns: columns * 10_000,
      extend: true,
    });
  });

  test('Tab goes on in reading order, with Shift back', () => {
    expect([act('Tab'), act('Tab', 's')]).toEqual([
      { act: 'step', by: 1 },
      { act: 'step', by: -1 },
    ]);
  });

  test('Home and End stay in their row unless Ctrl is held', () => {
    expect(act('Home')).toEqual({ act: 'go', row: 'same', column: 'first', extend: false });
    expect(act('Home', 'c')).toEqual({ act: 'go', row: 'first', column: 'first', extend: false });
    expect(act('End', 's')).toEqual({ act: 'go', row: 'same', column: 'last', extend: true });
    expect(act('End', 'm')).toEqual({ act: 'go', row: 'last', column: 'last', extend: false });
  });

  test('Enter and F2 edit what stands there; a character begins anew with it', () => {
    expect([act('Enter'), act('F2')]).toEqual([
      { act: 'edit', text: null },
      { act: 'edit', text: null },
    ]);
    expect([act('7'), act('µ'), act('a'), act('D')]).toEqual(
      ['7', 'µ', 'a', 'D'].map((text) => ({ act: 'edit', text })),
    );
  });

  test('space is typed into a cell, and presses the control of one that holds one', () => {
    expect(act(' ', '', true)).toEqual({ act: 'edit', text: ' ' });
    expect(act(' ', '', false)).toEqual({ act: 'press' });
  });

  test('Ctrl with D fills down and with A takes all, by either case and either key', () => {
    expect([act('d', 'c'), act('D', 'm')]).toEqual([{ act: 'fill-down' }, { act: 'fill-down' }]);
    expect([act('a', 'c'), act('A', 'cs')]).toEqual([{ act: 'select-all' }, { act: 'select-all' }]);
  });

  test('Delete and Backspace clear; Esc lets go of the block', () => {
    expect([act('Delete'), act('Backspace'), act('Escape')]).toEqual([
      { act: 'clear' },
      { act: 'clear' },
      { act: 'collapse' },
    ]);
  });

  test('what belongs to the browser is left to it', () => {
    expect([act('c', 'c'), act('v', 'm'), act('z', 'c'), act('F5'), act('Shift')]).toEqual(
      Array(5).fill(null),
    );
    expect([act('ArrowUp', 'a'), act('d', 'ca'), act('x', 'a')]).toEqual([null, null, null]);
  });
});

describe('keys while a cell is edited', () => {
  test.each([
    ['Enter', '', { keep: true, to: 'rows', rows: 1 }],
    ['Enter', 's', { keep: true, to: 'rows', rows: -1 }],
    ['Tab', '', { keep: true, to: 'next' }],
    ['Tab', 's', { keep: true, to: 'before' }],
    ['ArrowUp', '', { keep: true, to: 'rows', rows: -1 }],
    ['ArrowDown', '', { keep: true, to: 'rows', rows: 1 }],
    ['Escape', '', { keep: false }],
  ] as const)('%s%s leaves it', (name, held, expected) => {
    expect(leavingAct(key(name, held))).toEqual(expected);
  });

  test('within the text the caret goes as ever', () => {
    expect(
      ['ArrowLeft', 'ArrowRight', 'Home', 'End', 'x', 'Delete'].map((name) => leavingAct(key(name))),
    ).toEqual(Array(6).fill(null));
  });
});
