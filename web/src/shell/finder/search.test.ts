import { describe, expect, test } from '@jest/globals';
import { find, type Findable } from './search';

const of = (title: string, detail = ''): Findable => ({
  kind: 'thing',
  title,
  detail,
  open: () => undefined,
});
const titles = (all: Findable[], question: string) => find(all, question).map(({ title }) => title);

describe('finding', () => {
  const all = [
    of('Pre-charge time of Main', 'step, first high voltage'),
    of('Time to the threshold', 'figure'),
    of('Main', 'circuit'),
    of('Wärmeplatte', 'device'),
    of('S1-M01', 'module in Tail box'),
  ];
  test('the start of a title before a word’s start before the middle', () => {
    expect(titles([of('domain'), of('The main'), of('Main')], 'main')).toEqual([
      'Main',
      'The main',
      'domain',
    ]);
  });
  test('every word must stand somewhere, in any order', () => {
    expect(titles(all, 'main time')).toEqual(['Pre-charge time of Main']);
    expect(titles(all, 'tail s1')).toEqual(['S1-M01']);
    expect(titles(all, 'main nowhere')).toEqual([]);
  });
  test('case and accents do not count', () => {
    expect(titles(all, 'WARME')).toEqual(['Wärmeplatte']);
  });
  test('nothing asked, nothing found; never more than asked for', () => {
    expect(titles(all, '  ')).toEqual([]);
    expect(
      find(
        Array.from({ length: 99 }, (_, i) => of(`Module ${i}`)),
        'module',
        7,
      ),
    ).toHaveLength(7);
  });
});
