import { describe, expect, test } from '@jest/globals';
import { applyOperations, blankDesign, checkDesign, edit, mainCircuit, type Design } from '.';
import { partsInUse, removeBond, removeBox, removeCircuit, removeDevice, removeString, renamePart } from '.';

/** Everything that can name a box, a device, a circuit or a body names one. */
const design = edit(blankDesign(), (draft) => {
  Object.assign(draft, {
    boxes: { 'box-1': { tag: 'Nose' }, 'box-2': { tag: 'Tail' } },
    devices: {
      'device-1': { tag: 'Inverter', kind: 'inverter' },
      'device-2': { tag: 'Heater', kind: 'heater' },
    },
    joints: {
      'joint-all': { tag: 'M8', on: 'lugs' },
      'joint-heater': { tag: 'M6', on: 'lugs', circuit: 'circuit-2' },
    },
    bonds: {
      'box-1': { by: 'strap', areaMm2: 16, lengthM: 0.5 },
      'device-2': { by: 'bolted', to: 'box-1' },
      'bond-3': { tag: 'Bracket', by: 'strap', to: 'device-2', areaMm2: 10, lengthM: 0.3 },
    },
  });
  draft.circuits[mainCircuit]!.device = 'device-1';
  draft.circuits[mainCircuit]!.box = 'box-1';
  draft.circuits['circuit-2'] = { tag: 'Heater', role: 'branch', device: 'device-2', box: 'box-2' };
  Object.assign(draft.pack, {
    mainsBox: 'box-1',
    combinerBox: 'box-2',
    busbars: { 'bar-1': { tag: 'Bar', circuit: 'circuit-2' } },
  });
})!.design;
const without = (recipe: (draft: Design) => void) => {
  const edited = edit(design, (draft) => recipe(draft as Design))!;
  // Whatever goes, a design is left, and it can be brought back.
  expect(checkDesign(edited.design)).toMatchObject({ ok: true });
  expect(applyOperations(edited.design, edited.inverse)).toEqual(design);
  return edited.design;
};

test('the design is one', () => expect(checkDesign(design)).toMatchObject({ ok: true }));

describe('what goes takes along what was said of it alone', () => {
  test('a device: its branch, the branch’s own kind of joint and bar current, its bond', () => {
    const { devices, circuits, joints, bonds, pack } = without((draft) => removeDevice(draft, 'device-2'));
    expect([Object.keys(devices), Object.keys(circuits)]).toEqual([['device-1'], [mainCircuit]]);
    // Without its circuit the kind of joint would be of every lug.
    expect(Object.keys(joints!)).toEqual(['joint-all']);
    expect(pack.busbars!['bar-1']).toEqual({ tag: 'Bar' });
    // Bonded to a thing that is gone is not bonded to the chassis.
    expect(bonds).toEqual({
      'box-1': { by: 'strap', areaMm2: 16, lengthM: 0.5 },
      'bond-3': { tag: 'Bracket', areaMm2: 10, lengthM: 0.3 },
    });
  });

  test('the device of the main circuit leaves the circuit', () => {
    const { circuits, devices } = without((draft) => removeDevice(draft, 'device-1'));
    expect(Object.keys(devices)).toEqual(['device-2']);
    expect(circuits[mainCircuit]).toEqual({ ...design.circuits[mainCircuit], device: undefined });
  });

  test('a circuit leaves its device', () => {
    const { devices, joints } = without((draft) => removeCircuit(draft, 'circuit-2'));
    expect([Object.keys(devices), Object.keys(joints!)]).toEqual([['device-1', 'device-2'], ['joint-all']]);
  });

  test('a box: modules, circuits, mains and bonds stand in it no more', () => {
    const { boxes, circuits, pack, bonds } = without((draft) => removeBox(draft, 'box-1'));
    expect([Object.keys(boxes), circuits[mainCircuit]!.box, pack.mainsBox, pack.combinerBox]).toEqual([
      ['box-2'],
      undefined,
      undefined,
      'box-2',
    ]);
    expect(bonds!['device-2']).toEqual({});
    expect(bonds!['box-1']).toBeUndefined();
  });

  test('a body of its own', () => {
    expect(Object.keys(without((draft) => removeBond(draft, 'bond-3')).bonds!)).toEqual([
      'box-1',
      'device-2',
    ]);
  });
});

describe('a string and its parts', () => {
  const two = edit(blankDesign(), (draft) => {
    Object.assign(draft, {
      modules: {
        'module-1': { tag: 'M1', part: 'cell@1', plusSide: 'left' },
        'module-2': { tag: 'M2', part: 'cell@1' },
      },
      strings: {
        'string-1': { tag: 'S1', modules: ['module-1'], disconnect: 'pull@1' },
        'string-2': { tag: 'S2', modules: ['module-2'] },
      },
    });
    Object.assign(draft.pack, {
      leads: {
        'lead-1': { tag: 'S1', string: 'string-1', joint: 0, cable: 'wire@1' },
        'lead-2': { tag: 'Both', cable: 'wire@1' },
      },
      sense: { 'sense-1': { tag: 'S1', string: 'string-1' }, 'sense-2': { tag: 'All' } },
    });
    draft.circuits[mainCircuit]!.prechargeContactor = 'coil@1';
    draft.circuits[mainCircuit]!.plug = 'plug@1';
  })!.design;

  test('what was said of it goes with it, and what is of all strings stays', () => {
    const left = edit(two, (draft) => removeString(draft as Design, 'string-1'))!.design;
    expect(Object.keys(left.strings)).toEqual(['string-2']);
    expect(Object.keys(left.modules)).toEqual(['module-2']);
    expect(Object.keys(left.pack.leads!)).toEqual(['lead-2']);
    expect(Object.keys(left.pack.sense!)).toEqual(['sense-2']);
  });

  test('parts are found and exchanged wherever a field names one', () => {
    expect([...partsInUse(two)].sort()).toEqual(['cell@1', 'coil@1', 'plug@1', 'pull@1', 'wire@1']);
    const next = edit(two, (draft) => {
      renamePart(draft as Design, 'wire@1', 'wire@2');
      renamePart(draft as Design, 'cell@1', 'cell@2');
    })!.design;
    expect([...partsInUse(next)].sort()).toEqual(['cell@2', 'coil@1', 'plug@1', 'pull@1', 'wire@2']);
    expect(next.modules['module-1']!.plusSide).toBe('left');
  });
});
