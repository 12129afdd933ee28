import { describe, expect, test } from '@jest/globals';
import { createEvaluator, type FindingStatus } from '@torvek/core/design';
import { libraryBus } from '../../../demo/library-bus';
import { packPanelOfRule } from '../stations/pack/panels';
import { panelOfRule } from '../stations/protect/panels';
import { arrangeFindings, countOf, subjectNames } from './arrange-findings';

const { design } = libraryBus;
const findings = createEvaluator()
  .evaluate(design)
  .checks.flatMap((check) =>
    check.state === 'raised' ? [{ check, accepted: null }] : [],
  ) as FindingStatus[];
const protect = { station: 'protect', panelOfRule } as const;
const arranged = (panel: string, circuit?: string) =>
  arrangeFindings(findings, design.circuits, {
    ...protect,
    panel,
    ...(circuit !== undefined && { circuit }),
  });
const all = (groups: ReturnType<typeof arranged>['near']) => groups.flatMap((group) => group.findings);

describe('findings of a station', () => {
  test('those of the open panel and circuit stand first, none is lost and none stands twice', () => {
    const everything = countOf(arrangeFindings(findings, design.circuits, protect).near);
    expect(everything).toBeGreaterThan(3);
    for (const [panel, circuit] of [
      ['circuits', 'circuit-main'],
      ['circuits', 'circuit-heater'],
      ['start', 'circuit-main'],
      ['bonds', undefined],
    ] as const) {
      const { near, rest } = arranged(panel, circuit);
      expect([panel, countOf(near) + countOf(rest)]).toEqual([panel, everything]);
      for (const { check } of all(near)) {
        expect(panelOfRule(check.rule.id)).toBe(panel);
        if (circuit !== undefined) {
          const circuits = check.subjects
            .map((id) => id.split('/')[0]!)
            .filter((id) => id in design.circuits);
          expect([check.rule.id, circuits.length === 0 || circuits.includes(circuit)]).toEqual([
            check.rule.id,
            true,
          ]);
        }
      }
    }
  });

  test('several of one rule and grade are one line, the gravest lines first', () => {
    const { near, rest } = arranged('circuits', 'circuit-main');
    for (const groups of [near, rest]) {
      const keys = groups.map(({ findings: of }) => `${of[0]!.check.rule.id} ${of[0]!.check.grade}`);
      expect(new Set(keys).size).toBe(keys.length);
      const grades = groups.map(({ findings: of }) => ['stop', 'mend', 'note'].indexOf(of[0]!.check.grade));
      expect(grades).toEqual([...grades].sort((a, b) => a - b));
    }
    const twice = findings[0]!;
    const other = { ...twice, check: { ...twice.check, subjects: ['circuit-heater'] } } as FindingStatus;
    const { near: one } = arrangeFindings([twice, other], design.circuits, { station: 'prove' });
    expect(one).toHaveLength(1);
    expect(one[0]!.findings).toEqual([twice, other]);
  });

  test('what is accepted is apart, of whatever panel', () => {
    const accepted = findings.map((one) => ({ ...one, accepted: {} }) as FindingStatus);
    const parts = arrangeFindings(accepted, design.circuits, { station: 'prove' });
    expect([parts.near, parts.rest]).toEqual([[], []]);
    expect(countOf(parts.accepted)).toBe(findings.length);
  });

  test('another station’s findings do not stand here, and the pack’s rules have a panel each', () => {
    for (const { check } of findings)
      if (check.rule.id.startsWith('pack.')) expect(packPanelOfRule(check.rule.id)).toBeTruthy();
    const atPack = arrangeFindings(findings, design.circuits, { station: 'pack' });
    const atProtect = arrangeFindings(findings, design.circuits, { station: 'protect' });
    const inPack = new Set(atPack.near.map(({ rule }) => rule));
    expect(atProtect.near.some(({ rule }) => inPack.has(rule))).toBe(false);
  });
});

test('subjects are called by what people call them, each once', () => {
  const of = (subjects: string[]) => ({ check: { subjects } }) as unknown as FindingStatus;
  const tag = design.circuits['circuit-heater']!.tag;
  expect(subjectNames([of(['circuit-heater']), of(['circuit-heater/largest'])], design)).toEqual([tag]);
  // Things of every kind have their names, and so has what stands once.
  expect(
    subjectNames([of(['supply-depot', 'load-tail', 'wire-101', 'piece-pump', 'limits'])], design),
  ).toEqual([
    'Depot, three-phase',
    'Tail and marker lamps',
    '101 Lamps, feed',
    'Pack pump',
    'Limits of the monitor',
  ]);
  const part = design.circuits['circuit-heater']!.cable!;
  expect(subjectNames([of([part]), of(['elsewhere'])], design)).toEqual([
    design.parts[part]!.label,
    'elsewhere',
  ]);
});
