import { expect, test } from '@jest/globals';
import type { Design } from '@torvek/core/document';
import { deviceLoad } from '@torvek/core/network';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const change = (recipe: (draft: Design) => void): Design => {
  const draft = structuredClone(bus);
  recipe(draft);
  return draft;
};
const load = (design: Design, circuit: string, low: number | null = 300, high: number | null = 400) =>
  deviceLoad(design, circuit, low, high);

test('a heater of plain resistance draws most at the full pack', () => {
  const heater = change((draft) => {
    Object.assign(draft.devices['device-heater']!, { ratedPowerW: 5000, ratedVoltageV: 350 });
  });
  // 400 V over 24.5 Ω.
  expect(load(heater, 'circuit-heater')).toMatchObject({ ok: true, profile: [[3600, 16.327]] });
  expect(load(heater, 'circuit-heater', 300, null)).toEqual({
    ok: false,
    because: 'the highest voltage of the pack is not computed',
  });
});

test('any other power draws most at the lowest voltage; a charger what it gives at most', () => {
  const compressor = change((draft) => void (draft.devices['device-compressor']!.ratedPowerW = 3000));
  expect(load(compressor, 'circuit-compressor')).toMatchObject({ profile: [[3600, 10]] });
  expect(load(compressor, 'circuit-compressor', 0)).toMatchObject({ ok: false });
  const charger = change((draft) => void (draft.devices['device-charger']!.maxOutputA = 28));
  expect(load(charger, 'circuit-charger')).toMatchObject({ profile: [[3600, 28]] });
});

test('what is not given is said', () => {
  const unsaid = change((draft) => void delete draft.devices['device-compressor']!.ratedPowerW);
  expect(load(unsaid, 'circuit-compressor')).toEqual({
    ok: false,
    because: `the rated power of ${bus.devices['device-compressor']!.tag} is not given`,
  });
  const nothing = change((draft) => void delete draft.circuits['circuit-heater']!.device);
  expect(load(nothing, 'circuit-heater')).toMatchObject({ because: 'it feeds nothing yet' });
});
