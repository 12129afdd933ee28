import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { designsOfPage, figuresPage } from './figures-page';

const cells = (line: string) => line.split('|').map((cell) => cell.trim());

test('the page of figures names every figure of the demos, with its unit; ids stay', () => {
  const rowsOf = (text: string) =>
    text
      .split('\n')
      .filter((line) => line.startsWith('| `'))
      .map((line) => [cells(line)[1], cells(line)[3]]);
  const page = rowsOf(readFileSync('docs/figures.md', 'utf8'));
  expect(page.length).toBeGreaterThan(80);
  expect(page).toEqual(rowsOf(figuresPage(designsOfPage())));
});
