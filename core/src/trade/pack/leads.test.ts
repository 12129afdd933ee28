import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../whole/design';
import { bus350, van230 } from '../../whole/design/clean/library';
import { edit, type Design, type LeadItem } from '../../model/document';
import { oneLeadOhm, standsForAll } from './lead-step';

/** Resistance of flexible copper at 20 °C, Ω/m: IEC 60228. */
const perM25 = 0.00078;
const changed = (design: Design, recipe: (draft: Design) => void) =>
  edit(design, (draft) => recipe(draft as Design))?.design ?? design;
const value = (design: Design, id: Parameters<typeof idOf>[0]) => evaluate(design).figures[idOf(id)]?.value;
const idOf = (id: 'string' | 'links' | 'pack') =>
  ({
    string: 'pack.source:pack:stringOhm' as const,
    links: 'pack.source:pack:linksOhm' as const,
    pack: 'pack.pack:pack:resistanceOhm' as const,
  })[id];

describe('a cable of the pack as a resistance', () => {
  const parts = van230.parts;
  const lead: LeadItem = { tag: 'x', cable: 'marl-x25@1', lengthM: 2, parallel: 2, contactOhm: 0.0003 };

  test('its length, its conductors side by side, and its contacts once', () => {
    expect(oneLeadOhm(lead, parts)).toBeCloseTo((2 * perM25) / 2 + 0.0003, 12);
    expect(oneLeadOhm({ tag: 'x', cable: 'marl-x25@1', lengthM: 2 }, parts)).toBeCloseTo(
      2 * perM25 + 0.0001,
      12,
    );
  });

  test('is not guessed', () => {
    expect(oneLeadOhm({ ...lead, lengthM: 0 }, parts)).toBeNull();
    expect(oneLeadOhm({ ...lead, parallel: 0.5 }, parts)).toBeNull();
    expect(oneLeadOhm({ ...lead, contactOhm: -1 }, parts)).toBeNull();
    expect(oneLeadOhm({ ...lead, cable: 'nothing@1' }, parts)).toBeNull();
  });
});

describe('what lies in series counts in the pack', () => {
  test('one without a joint lies at either end', () => {
    const both = changed(van230, (draft) => delete draft.pack.leads!['lead-boxes']!.joint);
    expect(value(both, 'string')! - value(van230, 'string')!).toBeCloseTo(2.2 * perM25 + 0.0001, 10);
  });

  test('one without a string lies behind all of them, in both poles', () => {
    const whole = changed(bus350, (draft) => {
      draft.parts['marl-x25@1'] = van230.parts['marl-x25@1']!;
      draft.pack.leads = { 'lead-m': { tag: 'To the mains', cable: 'marl-x25@1', lengthM: 1 } };
    });
    expect(value(whole, 'links')! - value(bus350, 'links')!).toBeCloseTo(2 * (perM25 + 0.0001), 10);
    expect(value(whole, 'string')).toBeCloseTo(value(bus350, 'string')!, 12);
    expect(value(whole, 'pack')! - value(bus350, 'pack')!).toBeCloseTo(2 * (perM25 + 0.0001), 10);
  });

  test('strings that differ lie side by side: the mean of conductances', () => {
    // 100 and 120 mΩ side by side are 54.5454… mΩ: twice 109.09… mΩ.
    expect(standsForAll(0.1, [0, 0.02])).toBeCloseTo(0.24 / 2.2 - 0.1, 12);
    expect(standsForAll(0.1, [0.02, 0.02])).toBeCloseTo(0.02, 12);
    expect(standsForAll(0, [0.02, 0])).toBe(0.02);
    expect(standsForAll(0.1, [])).toBe(0);
  });

  test('a disconnect that is not chosen counts nothing', () => {
    const none = changed(van230, (draft) => delete draft.strings['string-1']!.disconnect);
    expect(value(van230, 'string')! - value(none, 'string')!).toBeCloseTo(0.0002, 10);
    const away = changed(van230, (draft) => delete draft.strings['string-1']!.disconnectAt);
    expect(value(away, 'string')).toBeCloseTo(value(none, 'string')!, 12);
  });
});
