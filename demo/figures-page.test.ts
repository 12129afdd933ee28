import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { figuresPage } from './figures-page';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

const cells = (line: string) => line.split('|').map((cell) => cell.trim());

test('the page of figures names every figure of both demos, with its unit; ids stay', () => {
  const rowsOf = (text: string) =>
    text
      .split('\n')
      .filter((line) => line.startsWith('| `'))
      .map((line) => [cells(line)[1], cells(line)[3]]);
  const page = rowsOf(readFileSync('docs/figures.md', 'utf8'));
  expect(page.length).toBeGreaterThan(80);
  expect(page).toEqual(rowsOf(figuresPage([libraryBus.design, orchardTruck.design])));
});
