import { expect, test } from '@jest/globals';
import type { Design } from '../../model/document';
import { createEvaluator } from '.';
import * as library from './clean/library';
import * as orchard from './clean/orchard';
import { silenced } from './mistakes/silenced';

const designs = Object.entries({ ...orchard, ...library }) as [string, Design][];
const names = [
  'vehicle',
  'pack',
  'settings',
  'masses',
  'boxes',
  'strings',
  'devices',
  'circuits',
  'joints',
  'bonds',
] as const;

/**
 * What is gone with a field because the thing itself is: a circuit that feeds nothing has no device whose poles, fuses and plugs could be
 * judged, and that it feeds nothing is a finding.
 */
const goneWithIt: Record<string, RegExp> = {
  'circuits.device': /^network\./,
  // That there is no disconnect, no cable and no lead is said of the string itself.
  'strings.disconnectAt': /^disconnect\./,
  'pack.leads': /^cable\./,
  'pack.sense': /^sense\./,
};

test.each(designs)('%s: a gap silences no rule: what cannot be judged says so', (_, design) => {
  expect(silenced(design, names, goneWithIt, createEvaluator())).toEqual([]);
});
