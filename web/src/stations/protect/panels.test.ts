import { describe, expect, test } from '@jest/globals';
import { stationOfPath } from '@torvek/core/document';
import { panelOfPath, panels } from './panels';

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
    ['devices.device-charger.isolation', 'bonds'],
    ['settings.sleeveColour', 'bonds'],
  ])('%s: %s', (path, panel) => {
    expect(panelOfPath(path)).toBe(panel);
    expect(stationOfPath(path)).toBe('protect');
  });

  test('is one there is, or none', () => {
    expect(panelOfPath('')).toBeNull();
    expect(panels.map(({ id }) => id)).toEqual(['circuits', 'start', 'strings', 'joints', 'bonds']);
  });
});
