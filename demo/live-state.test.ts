import { describe, expect, test } from '@jest/globals';
import { liveStateOf, storedAfter } from '@torvek/core/design';
import { type EntryOf } from '@torvek/core/record';
import { edit, type Design } from '@torvek/core/document';
import { deriveNetwork, stagesOf } from '@torvek/core/network';
import type { Entry, PositionBody } from '@torvek/core/record';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const network = deriveNetwork(bus);
const at = (stage: string) => stagesOf(bus, network).find(({ id }) => id === stage)!.open;
const position = (seq: number, body: Partial<PositionBody>) =>
  ({
    seq,
    body: { kind: 'position', linksOut: 0, serviceDisconnect: 'in', mains: 'open', ...body },
  }) as EntryOf<PositionBody>;
const proved = (seq: number) =>
  ({ seq, body: { kind: 'result', step: 'bus-dead:bus', verdict: 'pass' } }) as unknown as Entry;

describe('the live state of the vehicle', () => {
  test('nothing recorded is treated as live', () => {
    expect(liveStateOf(bus, null, [])).toMatchObject({ shape: 'unknown', detail: 'treat as live' });
  });

  test('names the highest voltage and where it is', () => {
    const state = (stage: string, sum: Partial<PositionBody> = {}) =>
      liveStateOf(bus, position(1, { open: at(stage), ...sum }), []);
    expect(state('bench', { linksOut: 12 })).toMatchObject({
      shape: 'open',
      text: 'HV open at 12 links',
      detail: 'up to 50.4 V in Nose box',
      gone: 0,
    });
    expect(state('last-link')).toMatchObject({ shape: 'pack', detail: expect.stringContaining('403 V') });
    expect(state('driving', { mains: 'closed' })).toMatchObject({
      shape: 'bus',
      text: 'Bus live: mains closed',
    });
  });

  test('a bus that was live is not proved dead by opening contactors, but by a passed measurement', () => {
    const off = position(4, { open: at('last-link'), stored: ['device-inverter'] });
    expect(liveStateOf(bus, off, [])).toMatchObject({
      shape: 'stored',
      text: 'Pack closed, mains open, bus not proved dead',
      stored: ['device-inverter'],
    });
    expect(liveStateOf(bus, off, [proved(5)])).toMatchObject({
      shape: 'pack',
      text: 'Pack closed, mains open',
      stored: [],
    });
    // A measurement before it says nothing about it.
    expect(liveStateOf(bus, off, [proved(3)]).shape).toBe('stored');
  });

  test('what stays charged is carried from one position to the next', () => {
    const driving = position(1, { open: at('driving'), mains: 'closed' });
    expect(storedAfter(bus, network, driving, [])).toHaveLength(5);
    expect(storedAfter(bus, network, driving, [proved(2)])).toEqual([]);
    expect(storedAfter(bus, network, null, [])).toEqual([]);
    const later = position(3, { open: at('last-link'), stored: ['device-heater'] });
    expect(storedAfter(bus, network, later, [])).toEqual(['device-heater']);
  });

  test('a position that gives only the sum counts everything it does not name as closed', () => {
    const { open, detail } = liveStateOf(bus, position(1, { serviceDisconnect: 'out' }), []);
    expect(open).toContain('string-1/disconnect');
    expect(open).not.toContain('string-1/link-1');
    // Half of the string on either side of the disconnect, outside on the leads.
    expect(detail).toContain('V');
  });

  test('parts that the design has lost since are counted', () => {
    const without = edit(bus, (draft) => {
      delete (draft as Design).circuits['circuit-inlet'];
    })!.design;
    const state = liveStateOf(without, position(1, { open: at('last-link') }), []);
    // The pair of contactors at the inlet.
    expect(state.gone).toBe(2);
  });
});
