import type { ProcedureStep } from '../commissioning';
import type { CheckValue, Grade, Rule } from '../../ground/finding';
import { checkKey, type RaisedCheck } from '../../ground/figure';
import type { AcceptanceBody, Basis, Entry, EntryBody } from '../../record';
import type { Evaluation } from '../../model/step';

/** Not registered: it is no rule of the house. */
export const rule: Rule = {
  id: 'test.rule',
  version: 2,
  grade: 'mend',
  title: 'A rule',
  why: 'Because',
  remedy: 'Mend it',
  source: 'Here',
};

export const raised = (
  value: number,
  grade: Grade = 'mend',
  version = 2,
  parts: string[] = [],
  more: CheckValue[] = [],
): Evaluation => {
  const check: RaisedCheck = {
    key: checkKey(rule, ['s']),
    rule: { ...rule, version },
    subjects: ['s'],
    state: 'raised',
    grade,
    message: `It is ${value}.`,
    values: [{ label: 'value', value, unit: 'V' }, ...more],
    parts,
    suggestions: [],
    advice: null,
  };
  return { figures: {}, checks: [check], runs: {} };
};

export const basis = (value: number): Basis[] => [
  { figure: 'a:b:c', label: 'limit', value, unit: 'V', toleranceFraction: 1e-6 },
];

export const step = (id: string, gate: ProcedureStep['gate'], now: number): ProcedureStep => ({
  id,
  template: id.split(':')[0]!,
  gate,
  title: id,
  do: '',
  why: '',
  hazard: 'part',
  instrument: 'meter',
  subjects: [{ id: 'part-1', tag: 'P1' }],
  expected: { kind: 'range', min: now, unit: 'V' },
  expectedText: '',
  gaps: [],
  basis: basis(now),
});

let seq = 0;
/** Of the newest entry. */
export const lastSeq = () => seq;
export function entry(body: EntryBody, more: Partial<Entry> = {}): Entry {
  seq += 1;
  return {
    format: 'torvek-entry',
    formatVersion: 1,
    id: `e${seq}`,
    job: 'j',
    seq,
    previous: null,
    takenAt: '',
    recordedAt: '',
    zone: 'UTC',
    by: 'Test',
    witness: null,
    against: { version: 0, sha256: '', core: '' },
    subjects: [],
    basis: [],
    instrument: null,
    attachments: [],
    body,
    ...more,
  };
}

export const result = (stepId: string, value: number, judgedOn: number) =>
  entry(
    {
      kind: 'result',
      step: stepId,
      title: stepId,
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'V' },
      expected: '',
      verdict: value >= judgedOn ? 'pass' : 'fail',
      reasons: [],
      details: [],
    },
    { basis: basis(judgedOn) },
  );

export const accepted = (value: number, grade: Grade = 'mend', more: Partial<AcceptanceBody> = {}) =>
  entry({
    kind: 'acceptance',
    check: checkKey(rule, ['s']),
    rule: rule.id,
    ruleVersion: 2,
    grade,
    message: '',
    values: [{ label: 'value', value, unit: 'V' }],
    reason: 'Agreed.',
    ...more,
  });
