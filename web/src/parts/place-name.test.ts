import { describe, expect, test } from '@jest/globals';
import { blankDesign } from '@torvek/core/document';
import { pathOfPointer, placeName, sayValue, subjectName } from './place-name';

const design = {
  ...blankDesign(),
  devices: { 'device-1': { tag: 'Inverter', kind: 'inverter' as const } },
  pack: { busbars: { 'bar-1': { tag: 'Long bar' } }, balance: { restHours: 3 } },
};

describe('places in words', () => {
  test.each([
    ['devices.device-1.minV', 'Inverter · Works from'],
    ['devices.device-1', 'Inverter'],
    ['devices.device-9.minV', 'Devices · device-9 · Works from'],
    ['circuits.circuit-main.stretches.0.lengthM', 'Main · Way in parts 1 · Length'],
    ['pack.busbars.bar-1.widthMm', 'Long bar · Width'],
    ['pack.balance.restHours', 'Balancing · A rest is over after'],
    ['vehicle.frontKg', 'Front axle load before'],
    ['pack', 'Pack'],
    ['nowhere.at.all', 'nowhere · at · all'],
  ])('%s', (path, name) => {
    expect(placeName(design, path)).toBe(name);
  });

  test.each([
    ['circuit-main', 'Main'],
    ['circuit-main/largest', 'Main, largest'],
    ['device-1', 'Inverter'],
    ['bar-1', 'Long bar'],
    ['pack', ''],
  ])('the subject %s is %s', (subject, name) => {
    expect(subjectName(design, subject)).toBe(name);
  });

  test('a pointer of an operation is a path', () => {
    expect(pathOfPointer('/parts/a~1b@1/data')).toBe('parts.a/b@1.data');
  });
});

describe('values in words', () => {
  test('numbers with the unit in which they are typed', () => {
    expect(sayValue(design, 'devices.device-1.busCapacitanceF', 0.0011)).toBe('1100 µF');
    expect(sayValue(design, 'pack.socLowFraction', 0.05)).toBe('5 %');
    expect(sayValue(design, 'circuits.circuit-main.lengthM', 5.2)).toBe('5.2 m');
    expect(sayValue(design, 'vehicle.year', 1974)).toBe('1974');
  });

  test('what names something by its name, as long as that is there', () => {
    expect(sayValue(design, 'circuits.circuit-main.device', 'device-1')).toBe('Inverter');
    expect(sayValue(design, 'circuits.circuit-main.device', 'device-9')).toBe('device-9');
    expect(sayValue(design, 'circuits.circuit-main.fuse', 'f-1@1')).toBe('f-1@1');
  });

  test('what is absent, a yes, a text, and a long list cut off', () => {
    expect(sayValue(design, 'vehicle.make', undefined)).toBe('—');
    expect(sayValue(design, 'circuits.circuit-main.screened', true)).toBe('yes');
    expect(sayValue(design, 'vehicle.make', 'Corvane')).toBe('Corvane');
    expect(sayValue(design, 'circuits.circuit-main.loadProfile', Array(60).fill([1, 2]))).toHaveLength(72);
  });
});
