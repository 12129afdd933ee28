import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import { checkDesign } from '@torvek/core/document';
import { jointsOf } from '@torvek/core/joints';
import { orchardTruck } from './orchard-truck';

describe('demo B', () => {
  const { design } = orchardTruck;
  const { checks, figures } = evaluate(design);

  test('is a design of about 115 V in which nothing is left unchecked', () => {
    expect(checkDesign(design)).toMatchObject({ ok: true });
    expect(figures['pack.pack:pack:voltageNominalV']!.value!).toBeGreaterThan(110);
    expect(figures['pack.pack:pack:voltageNominalV']!.value!).toBeLessThan(120);
    expect(checks.filter(({ state }) => state === 'not-checked')).toEqual([]);
  });

  test('carries no fault but two thresholds in the wrong order and a board over the disconnect', () => {
    expect(
      checks.flatMap((check) => (check.state === 'raised' && check.grade !== 'note' ? [check.rule.id] : [])),
    ).toEqual(['monitoring.over-break', 'threshold-ladder.order']);
  });

  test('has two joints at each of its 36 cells and four at each cable, every one of a kind', () => {
    const joints = jointsOf(design);
    expect(joints).toHaveLength(36 * 2 + 3 * 4);
    expect(joints.filter(({ kind }) => kind === null)).toEqual([]);
    expect(joints.filter(({ kind }) => kind === 'joint-m6').map(({ tag }) => tag)).toEqual([
      'Charger + at the source',
      'Charger − at the source',
      'Charger + at the device',
      'Charger − at the device',
    ]);
  });
});
