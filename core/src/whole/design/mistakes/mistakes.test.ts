import { describe, expect, test } from '@jest/globals';
import { createEvaluator } from '..';
import type { Design } from '../../../model/document';
import * as library from '../clean/library';
import * as orchard from '../clean/orchard';
import { mistakes } from '.';
import { raisedOf, tryMistake } from './try';

const designs = Object.entries({ ...orchard, ...library }) as [string, Design][];

test('the collection is large, and no two of its mistakes are called the same', () => {
  expect(mistakes.length).toBeGreaterThanOrEqual(335);
  expect(new Set(mistakes.map(({ says }) => says)).size).toBe(mistakes.length);
});

describe.each(designs)('%s', (_, clean) => {
  const evaluator = createEvaluator();
  const evaluation = evaluator.evaluate(clean);

  test('is right: nothing about it is a Stop or has to be mended', () => {
    const grave = evaluation.checks.filter((check) => check.state === 'raised' && check.grade !== 'note');
    expect(grave.map(({ key }) => key)).toEqual([]);
  });

  test('with each mistake of the collection made to it says so', () => {
    const before = raisedOf(evaluation);
    const outcomes = mistakes.map((one) => ({
      says: one.says,
      missed: tryMistake(one, clean, before, evaluator),
    }));
    const tried = outcomes.filter(({ missed }) => missed !== undefined);
    const missed = tried.flatMap(({ says, missed: words }) => (words === null ? [] : [`${says}: ${words}`]));
    expect(tried.length).toBeGreaterThanOrEqual(240);
    expect(missed).toEqual([]);
  });
});
