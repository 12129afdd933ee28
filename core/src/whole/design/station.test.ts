import { expect, test } from '@jest/globals';
import '../../calculators';
import { allRules } from '../../ground/finding';
import { stationOfCheck } from '.';

test('each rule is counted at the station of its room', () => {
  const rooms: Record<string, Set<string>> = {};
  for (const rule of allRules()) {
    const station = stationOfCheck({ rule });
    (rooms[station] ??= new Set()).add(rule.id.split('.')[0]!);
  }
  const sorted = Object.fromEntries(Object.entries(rooms).map(([at, set]) => [at, [...set].sort()]));
  expect(sorted).toEqual({
    brief: ['axle', 'drive-cycle', 'range', 'vehicle'],
    pack: [
      'balance',
      'balance-time',
      'intake',
      'pack',
      'parallel-match',
      'rest-predict',
      'segments',
      'stock',
    ],
    network: ['live-map', 'network', 'path-faults'],
    protect: [
      'bonding',
      'bus-discharge',
      'busbar',
      'cable',
      'cable-duty',
      'charging',
      'contactor',
      'disconnect',
      'distances',
      'fuse',
      'joints',
      'library',
      'marking',
      'norms',
      'plug',
      'precharge',
      'precharge-fit',
      'protect',
      'sense',
      'strings',
    ],
    route: ['bend-card', 'conduit-fit', 'cut-plan', 'pull', 'route', 'run', 'wall'],
    cool: [
      'cooling',
      'expansion',
      'heater-at-voltage',
      'hydraulic',
      'leak-test',
      'loop-balance',
      'loop-thermal',
      'warm-up',
    ],
    charge: [
      'ac-charge',
      'charge',
      'charge-curve',
      'dcfc-window',
      'looms',
      'low-voltage',
      'threshold-ladder',
      'twelve-volt',
      'wire-12v',
    ],
    sense: ['bms-map', 'ladder-check', 'monitoring', 'topology-compare'],
    prove: ['built'],
  });
});
