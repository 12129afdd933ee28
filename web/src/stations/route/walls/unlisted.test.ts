import { describe, expect, test } from '@jest/globals';
import { blankDesign, type Design } from '@torvek/core/document';
import { unlisted } from './unlisted';

const design = (openings: Design['openings']): Design => ({
  ...blankDesign(),
  boxes: { 'box-a': { tag: 'A' }, 'box-b': { tag: 'B' } },
  runs: {
    'run-1': { tag: 'Main', circuits: ['circuit-main'], from: 'box-a', to: 'device-x' },
    'run-2': { tag: 'Link', leads: ['lead-1'], from: 'box-a', to: 'box-b' },
    'run-3': { tag: 'Coolant', hoses: ['piece-1'], from: 'box-b', to: 'box-b' },
  },
  ...(openings !== undefined && { openings }),
});

describe('runs without an opening', () => {
  test('are those that end at a box, each box once, hoses as hoses', () => {
    expect(unlisted(design(undefined))).toEqual([
      { run: 'run-1', box: 'box-a', hose: false, words: 'Main, A' },
      { run: 'run-2', box: 'box-a', hose: false, words: 'Link, A' },
      { run: 'run-2', box: 'box-b', hose: false, words: 'Link, B' },
      { run: 'run-3', box: 'box-b', hose: true, words: 'Coolant, B' },
    ]);
  });

  test('an opening counts for the box it is in alone', () => {
    const found = unlisted(
      design({
        'opening-1': { tag: 'x', box: 'box-a', run: 'run-2' },
        'opening-2': { tag: 'y', run: 'run-1' },
      }),
    );
    expect(found.map(({ words }) => words)).toEqual(['Main, A', 'Link, B', 'Coolant, B']);
  });
});
