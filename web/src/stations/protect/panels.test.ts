import { describe, expect, test } from '@jest/globals';
import { stationOfPath } from '@torvek/core/document';
import { panelOfPath, panelOfRule, panels } from './panels';

describe('the panel in which a place of the design is edited', () => {
  test.each([
    ['circuits.circuit-main.lengthM', null],
    ['circuits.circuit-main.fuse', null],
    ['circuits.circuit-main.stretches.0.lengthM', null],
    ['circuits.circuit-main.resistor', 'start'],
    ['circuits.circuit-main.timerS', 'start'],
    ['settings.touchLimitV', 'start'],
    ['pack.stringSpreadFraction', 'strings'],
    ['joints.joint-posts.torqueNm', 'joints'],
    ['pack.busbars.bar.coating', 'joints'],
    ['bonds.box-nose.by', 'bonds'],
    ['circuits.circuit-main.sheath', 'bonds'],
    ['boxes.box-nose.clearanceMm', 'bonds'],
    ['boxes.box-nose.lowVoltageGapMm', 'bonds'],
    ['pack.leads.lead-1.lengthM', 'leads'],
    ['pack.sense.sense-1.fuseA', 'leads'],
    ['circuits.circuit-main.prechargeContactor', 'start'],
    ['circuits.circuit-main.fusePole', null],
    ['devices.device-charger.isolation', 'bonds'],
    ['settings.sleeveColour', 'bonds'],
  ])('%s: %s', (path, panel) => {
    expect(panelOfPath(path)).toBe(panel);
    expect(stationOfPath(path)).toBe('protect');
  });

  test('is one there is, or none', () => {
    expect(panelOfPath('')).toBeNull();
    expect(panels.map(({ id }) => id)).toEqual(['circuits', 'start', 'strings', 'leads', 'joints', 'bonds']);
  });
});

test('a rule that is judged of cables of circuits and of the pack is shown at each of them', () => {
  expect(panelOfRule('cable.lug-area', ['circuit-main'])).toBe('circuits');
  expect(panelOfRule('cable.lug-area', ['lead-1-2'])).toBe('leads');
  expect(panelOfRule('sense.unfused', ['sense-1'])).toBe('leads');
  expect(panelOfRule('cable.pack-cable-unsaid', ['pack'])).toBe('leads');
  expect(panelOfRule('precharge.voltage', ['circuit-main'])).toBe('start');
});
