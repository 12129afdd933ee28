import { describe, expect, test } from '@jest/globals';
import { createEvaluator, whyLapsed } from '@torvek/core/design';
import { edit, everyTagged, type Design } from '@torvek/core/document';
import type { RaisedCheck } from '@torvek/core/figure';
import { replacePart } from '@torvek/core/library';
import { formatNumber } from '@torvek/core/quantity';
import type { AcceptanceBody } from '@torvek/core/record';
import { times } from '../scripts/testing/thorough';
import { libraryBus } from './library-bus';
import { changed, wrong } from './rule-cases';

/** An acceptance as the server makes it of a finding. */
const accepted = ({ key, rule, grade, message, values, parts }: RaisedCheck): AcceptanceBody => ({
  kind: 'acceptance',
  check: key,
  rule: rule.id,
  ruleVersion: rule.version,
  grade,
  message,
  values,
  parts,
  reason: 'Agreed.',
});
/** One that stays warm: a hundred designs that differ in one thing each. */
const evaluator = createEvaluator();
const raisedIn = (design: Design): RaisedCheck[] =>
  evaluator.evaluate(design).checks.filter((check): check is RaisedCheck => check.state === 'raised');

/** Names that a sentence may quote: numbers in them are none of the judgement’s. */
const namesIn = (design: Design): string[] =>
  [
    ...Object.values(design.parts).flatMap(({ label, number, make }) => [label, `${make} ${number}`, number]),
    ...Object.values(everyTagged(design)).map(({ tag }) => tag),
    // Cables between boxes are named after the modules they join.
    ...Object.values(design.strings).flatMap(({ tag, modules }) =>
      modules.map((_, i) => `${tag} cable ${i + 1}–${i + 2}`),
    ),
  ].sort((a, b) => b.length - a.length);

const prefixes = [1, 1e3, 1e6, 1e9, 1e-3, 1e-6, 1e-9, 0.01];

/** Numbers that are no value of a design but a convention of the trade or of the sentence itself. */
const conventions: Record<string, string[]> = {
  // The class of a bolt, and the share of its proof stress that a torque may reach.
  'joints.torque-over-proof': ['8.8', '70', '90'],
  // A joint has two faces, a screen two ends, a bus two poles.
  'joints.bare-aluminium': ['2'],
  'bonding.screen-one-end': ['2'],
  'bonding.screen-pigtail': ['2'],
  'network.single-pole-mains': ['2'],
  'network.inlet-live': ['2'],
  'joints.torque-low': ['8.8', '70'],
  // One of them.
  'network.device-not-fed': ['1'],
  'network.circuit-feeds-nothing': ['1'],
  'contactor.strings-not-parted': ['1'],
  // Six are named, the rest is counted.
  'network.live-outside': ['2'],
  'busbar.stiff-between-posts': ['50'],
  'busbar.no-balance': ['400'],
  'cable.no-balance': ['400'],
  'cable.small-in-conduit': ['25'],
};

/** The numbers of a sentence that none of the finding’s values stands behind. */
function unexplained({ rule, message, values }: RaisedCheck, design: Design): string[] {
  let text = message;
  for (const name of namesIn(design)) text = text.split(name).join('#');
  const numbers = [...text.matchAll(/(?<![\p{L}\d])-?\d+(?:\.\d+)?/gu)].map(([one]) => one);
  return numbers.filter((shown) => {
    if (conventions[rule.id]?.includes(shown) === true) return false;
    const digits = Math.max(1, shown.replace(/^-?0*\.?0*/, '').replace('.', '').length);
    return !values.some(({ value }) =>
      prefixes.some((scale) =>
        [value, -value, value - Math.trunc(value)].some(
          (one) =>
            formatNumber(one / scale, 3) === shown ||
            formatNumber(one / scale, 4) === shown ||
            Number((one / scale).toPrecision(digits)) === Number(shown),
        ),
      ),
    );
  });
}

const cases = Object.entries(wrong).map(([rule, recipe]) => {
  const design = changed(recipe);
  const check = raisedIn(design).find((one) => one.rule.id === rule)!;
  return { rule, design, check };
});

describe.each(cases)('an acceptance of $rule', ({ design, check }) => {
  test('rests on every number that the finding names', () => {
    expect(unexplained(check, design)).toEqual([]);
    const labels = check.values.map(({ label, unit }) => `${label} ${unit}`);
    expect(new Set(labels).size).toBe(labels.length);
  });

  test('holds as it is, and lapses when any of its numbers moves', () => {
    const body = accepted(check);
    expect(whyLapsed(check, body)).toBeNull();
    for (const [i, one] of check.values.entries()) {
      const moved = { ...one, value: one.value === 0 ? 1 : one.value * 1.001 };
      expect(whyLapsed({ ...check, values: check.values.with(i, moved) }, body)).toBe(
        `${one.label} has moved`,
      );
    }
  });
});

// Each exchange costs an evaluation: every third of them.
describe.each(cases.filter((_, i) => i % times(3, 1) === 0))(
  'an acceptance of $rule',
  ({ design, check }) => {
    test('lapses when a part that was judged is exchanged for its next revision, and for no other part', () => {
      const body = accepted(check);
      // Of the parts that were not judged a few: each costs an evaluation.
      const some = Object.entries(design.parts).filter(
        ([key], i) => check.parts.includes(key) || i % times(90, 1) === 0,
      );
      for (const [key, part] of some) {
        const exchanged = edit(design, (draft) =>
          replacePart(draft as Design, key, { ...part, revision: part.revision + 1 }),
        )!.design;
        const after = raisedIn(exchanged).find((one) => one.key === check.key);
        // A finding about a revision is about that very part.
        if (after === undefined) continue;
        const lapsed = whyLapsed(after, body);
        expect([key, lapsed]).toEqual([key, check.parts.includes(key) ? 'a part has been exchanged' : null]);
      }
    });
  },
);

/** What a finding of these rooms is about is a part, unless it is named here. */
const aboutParts = /^(fuse|contactor|cable|cable-duty|precharge|strings)\./;
const aboutNone = new Set([
  'cable.pack-cable-place',
  'cable.pack-cable-unfused',
  'cable.pack-cable-unsaid',
  'contactor.strings-not-parted',
  'precharge.active-on',
  'precharge.bare-timer',
  'precharge.no-resistor-fits',
]);
test('findings about chosen parts name them', () => {
  const without = cases.filter(
    ({ rule, check }) => aboutParts.test(rule) && !aboutNone.has(rule) && check.parts.length === 0,
  );
  expect(without.map(({ rule }) => rule)).toEqual([]);
});

test('the story: a fuse that was accepted is not accepted in another place of its numbers', () => {
  const small = (draft: Design) => void (draft.circuits['circuit-heater']!.fuse = 'calderside-f160@1');
  const design = changed(small);
  const find = (of: Design) =>
    raisedIn(of).find(({ key }) => key === 'fuse.cable-unprotected|circuit-heater')!;
  const body = accepted(find(design));
  expect(whyLapsed(find(design), body)).toBeNull();
  const longer = edit(design, (draft) => void (draft.circuits['circuit-heater']!.lengthM = 9))!.design;
  expect(whyLapsed(find(longer), body)).toMatch(/not covered has moved$/);
  const other = changed((draft) => {
    small(draft);
    draft.circuits['circuit-heater']!.fuse = 'calderside-f250@1';
  });
  expect(whyLapsed(find(other), body)).toBe('a part has been exchanged');
  expect(libraryBus.design.circuits['circuit-heater']!.fuse).toBe('calderside-f32@1');
});
