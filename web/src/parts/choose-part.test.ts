import { describe, expect, test } from '@jest/globals';
import { blankDesign, edit, mainCircuit } from '@torvek/core/document';
import { holderOf } from './choose-part';

const design = edit(blankDesign(), (draft) => {
  draft.strings['string-1'] = { tag: 'S1', modules: [] };
  draft.circuits['circuit-2'] = { tag: 'Heater', role: 'branch' };
  draft.pack.leads = { 'lead-1': { tag: 'Nose to tail' } };
})!.design;

describe('where a replacement is taken', () => {
  test('at the thing that the finding is about, never at another', () => {
    expect(holderOf(design, 'string-1')).toEqual({ path: 'strings.string-1', tag: 'S1', main: false });
    expect(holderOf(design, 'lead-1')).toEqual({
      path: 'pack.leads.lead-1',
      tag: 'Nose to tail',
      main: false,
    });
    expect(holderOf(design, 'circuit-2')).toEqual({ path: 'circuits.circuit-2', tag: 'Heater', main: false });
    expect(holderOf(design, mainCircuit)?.main).toBe(true);
  });

  test('a subject with a part of its own is that of its thing', () => {
    expect(holderOf(design, `${mainCircuit}/largest`)?.path).toBe(`circuits.${mainCircuit}`);
  });

  test('nothing is taken for what has no parts', () => {
    expect(holderOf(design, 'pack')).toBeNull();
    expect(holderOf(design, 'toString')).toBeNull();
  });
});
