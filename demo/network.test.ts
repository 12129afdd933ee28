import { describe, expect, test } from '@jest/globals';
import { evaluate, liveMapOf, sumOfPosition } from '@torvek/core/design';
import { checkDesign, edit, type Design } from '@torvek/core/document';
import { allRules } from '@torvek/core/finding';
import { canOpen, deriveNetwork, pathFaults, stagesOf, type Network } from '@torvek/core/network';
import { generatedDesign } from './generated';
import { libraryBus } from './library-bus';
import { numbersFrom } from './numbers';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void) => edit(bus, (draft) => recipe(draft as Design))!.design;
const stage = (design: Design, id: string) => {
  const network = deriveNetwork(design);
  const found = stagesOf(design, network).find((one) => one.id === id)!;
  return { network, open: found.open, map: liveMapOf(network, found.open) };
};
const across = (map: ReturnType<typeof liveMapOf>, load: string) =>
  map.terminals[`${load}:+`]!.potentialV! - map.terminals[`${load}:-`]!.potentialV!;
/** 2 strings of 8 modules of 12 cells at 4.2 V. */
const packV = 8 * 12 * 4.2;

describe('the network of demo A', () => {
  const network = deriveNetwork(bus);
  const count = (kind: string) => network.elements.filter((one) => one.kind === kind).length;

  test('has every module, a disconnect and a fuse in each string, a fuse in each of eight circuits', () => {
    expect(count('module')).toBe(16);
    expect(count('service-disconnect')).toBe(2);
    expect(count('fuse')).toBe(2 + 8);
    // Two in each string, two mains, two at the inlet, one for pre-charge.
    expect(count('contactor')).toBe(4 + 2 + 2 + 1);
    expect(count('load')).toBe(8);
  });

  test('every symbol stands for its elements once, and every line joins two symbols', () => {
    const ids = network.symbols.flatMap(({ elements }) => elements);
    expect(new Set(ids).size).toBe(ids.length);
    expect([...ids].sort()).toEqual(network.elements.map(({ id }) => id).sort());
    const known = new Set(network.symbols.map(({ id }) => id));
    for (const { from, to } of network.lines) expect([known.has(from), known.has(to)]).toEqual([true, true]);
    expect(new Set(network.lines.map(({ id }) => id)).size).toBe(network.lines.length);
  });

  test('driving, every device but the inlet has the whole pack across it', () => {
    const { map } = stage(bus, 'driving');
    for (const device of ['inverter', 'charger', 'dcdc', 'heater', 'compressor'])
      expect(across(map, `device-${device}`)).toBeCloseTo(packV, 9);
    expect(map.terminals['device-inlet:+']!.state).toBe('floating');
    expect(across(stage(bus, 'dc-charging').map, 'device-inlet')).toBeCloseTo(packV, 9);
  });

  test('with links left out no box holds more than the touch limit; on the bench neither', () => {
    for (const id of ['bench', 'boxes', 'closing'])
      for (const { maxVoltageV } of Object.values(stage(bus, id).map.reaches))
        expect(maxVoltageV).toBeLessThanOrEqual(60);
  });

  test('the last link in, the leads carry the whole pack outside the boxes with every contactor open', () => {
    const { map } = stage(bus, 'last-link');
    expect(map.reaches.outside!.maxVoltageV).toBeCloseTo(packV, 9);
    expect(map.terminals['device-inverter:+']!.state).toBe('floating');
    expect(map.reaches['box-nose']!.maxVoltageV).toBeCloseTo(2 * 50.4, 9);
  });

  test('a welded main leaves one pole of the bus on the pack: 0 V across, live all the same', () => {
    const { map } = stage(bus, 'welded-plus');
    expect(map.terminals['bus:+']!.state).toBe('live');
    expect(across(map, 'device-inverter')).toBeCloseTo(0, 9);
  });

  test('a short at the inverter is fed by both strings through three fuses', () => {
    const { result } = pathFaults.calculate({ elements: network.elements, from: 'device-inverter' });
    expect(result.fuses).toEqual(['string-1/fuse', 'string-2/fuse', 'circuit-main/fuse']);
    // Two strings of 96 cells of 0.75 mΩ with 4 mΩ of links each, side by side, and 2 × 8.5 m of 70 mm².
    const sourceOhm = (96 * 0.00075 + 0.004) / 2;
    const cableOhm = 2 * 8.5 * 0.000272;
    // The bleed of 2 kΩ in the inverter takes next to nothing.
    expect(result.prospectiveA).toBeCloseTo(packV / (sourceOhm + cableOhm), 1);
    expect(result.unprotected).toBe(false);
  });

  test('a position sums up to what stands open', () => {
    const sum = (id: string) => sumOfPosition(network, stage(bus, id).open);
    // Seven joints a string, one of them the disconnect.
    expect(sum('bench')).toEqual({ linksOut: 12, serviceDisconnect: 'out', mains: 'open' });
    expect(sum('last-link')).toEqual({ linksOut: 0, serviceDisconnect: 'in', mains: 'open' });
    expect(sum('locked-off')).toEqual({ linksOut: 0, serviceDisconnect: 'out', mains: 'open' });
    expect(sum('driving')).toEqual({ linksOut: 0, serviceDisconnect: 'in', mains: 'closed' });
  });

  test('a second inverter on a branch of its own fills through its own pre-charge, not the main one', () => {
    const two = changed((draft) => {
      draft.devices['device-two'] = { tag: 'Inverter 2', kind: 'inverter', busCapacitanceF: 0.0007 };
      draft.circuits['circuit-two'] = {
        tag: 'Second inverter',
        role: 'branch',
        device: 'device-two',
        fuse: 'calderside-f160@1',
        contactor: 'hollin-k200@1',
        resistor: 'ember-82@1',
        ends: 'gland',
      };
    });
    const busF = (design: Design) => evaluate(design).figures['precharge.bus:bus:capacitanceF']!.value;
    expect(busF(two)).toBe(busF(bus));
    const { map } = stage(two, 'driving');
    expect(across(map, 'device-two')).toBeCloseTo(packV, 9);
    expect(stage(two, 'precharging').map.terminals['device-two:+']!.state).toBe('floating');
  });
});

describe('a clean design', () => {
  // Everything in one box, contactors inside it, plugs with interlock, one monitor.
  const clean = changed((draft) => {
    for (const module of Object.values(draft.modules)) module.box = 'box-tail';
    draft.pack.mainsBox = draft.pack.combinerBox = 'box-tail';
  });

  test('raises none of the network’s findings, and all are checked', () => {
    // Slips and contradictions are said where there are any.
    const own = allRules().filter(
      ({ id }) => id.startsWith('network.') && !/contradiction|unusual|cold-ambient/.test(id),
    );
    expect(own).toHaveLength(16);
    const checks = evaluate(clean).checks.filter(({ rule }) => rule.id.startsWith('network.'));
    expect(new Set(checks.map(({ rule }) => rule.id))).toEqual(new Set(own.map(({ id }) => id)));
    expect(checks.filter(({ state }) => state !== 'clear')).toEqual([]);
  });
});

describe('designs of any shape', () => {
  const designs = Array.from({ length: 60 }, (_, seed) => generatedDesign(seed));

  test('are designs, and their networks hold together', () => {
    for (const design of designs) {
      expect(checkDesign(design)).toMatchObject({ ok: true });
      const network = deriveNetwork(design);
      const ids = network.elements.map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      expect(network.symbols.flatMap(({ elements }) => elements).sort()).toEqual([...ids].sort());
      expect(network.elements.filter(({ kind }) => kind === 'module')).toHaveLength(
        Object.keys(design.modules).length,
      );
      // All like strings, all closed but pre-charge: nothing may conflict.
      expect(liveMapOf(network, []).conflicts).toEqual([]);
    }
  });

  test('closing a switch never makes a terminal less live', () => {
    const rank = { floating: 0, stored: 1, live: 2 };
    const next = numbersFrom(5);
    for (const design of designs.slice(0, 30)) {
      const network: Network = deriveNetwork(design);
      const switches = network.elements.filter(canOpen).map(({ id }) => id);
      const open = switches.filter(() => next() < 0.5);
      const before = liveMapOf(network, open);
      for (const closing of open.slice(0, 6)) {
        const after = liveMapOf(
          network,
          open.filter((id) => id !== closing),
        );
        for (const [terminal, { state }] of Object.entries(before.terminals))
          expect(rank[after.terminals[terminal]!.state]).toBeGreaterThanOrEqual(rank[state]);
      }
    }
  });

  test('evaluate without a figure that is neither a number nor a gap', () => {
    for (const design of designs)
      for (const figure of Object.values(evaluate(design).figures)) {
        if (figure.value === null) expect(figure.gaps.length).toBeGreaterThan(0);
        else expect(Number.isFinite(figure.value)).toBe(true);
      }
  });
});
