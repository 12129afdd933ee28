import { liveMapOf } from '@torvek/core/design';
import { deriveNetwork, liveMap, type NetworkElement } from '@torvek/core/network';
import { arrange, type ArrangeInput } from '@torvek/core/pack';
import { libraryBus } from '../../demo/library-bus';

/** Live maps and the search for arrangements. */
let failed = false;
function report(name: string, value: number, limit: number, unit: string): void {
  const holds = value < limit;
  failed ||= !holds;
  console.log(
    `  ${name.padEnd(46)} ${value.toFixed(1).padStart(8)} ${unit}, limit ${limit} ${unit}: ${holds ? 'holds' : 'DOES NOT HOLD'}`,
  );
}
function median(run: () => void): number {
  const times = Array.from({ length: 25 }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  });
  return times.sort((a, b) => a - b)[12]!;
}

/** Ten strings of twenty modules side by side, each with links, a fuse and a contactor; forty loads. */
function large(): NetworkElement[] {
  const elements: NetworkElement[] = [];
  for (let s = 0; s < 10; s += 1) {
    for (let m = 0; m < 20; m += 1) {
      const id = `m${s}-${m}`;
      elements.push({ id, kind: 'module', a: `${id}-`, b: `${id}+`, voltageV: 20, reach: `box${m % 4}` });
      const from = `${id}+`;
      const to = m === 19 ? 'p' : `m${s}-${m + 1}-`;
      elements.push({ id: `l${s}-${m}`, kind: 'link', a: from, b: to, closed: true, reach: `box${m % 4}` });
    }
    elements.push({ id: `n${s}`, kind: 'contactor', a: 'n', b: `m${s}-0-`, closed: true, reach: 'box0' });
  }
  for (let i = 0; elements.length < 600; i += 1) {
    elements.push({ id: `f${i}`, kind: 'fuse', a: 'p', b: `d${i}+`, closed: true, reach: 'box3' });
    elements.push({ id: `d${i}`, kind: 'load', a: 'n', b: `d${i}+`, reach: 'car' });
  }
  return elements;
}
const elements = large();
const modules = elements.filter(({ kind }) => kind === 'module').length;
report(
  `live map, ${modules} modules, ${elements.length} elements`,
  median(() => liveMap.calculate({ elements, storedV: {} })),
  10,
  'ms',
);
const network = deriveNetwork(libraryBus.design);
report(
  'network of demo A',
  median(() => deriveNetwork(libraryBus.design)),
  10,
  'ms',
);
report(
  'live map of demo A',
  median(() => liveMapOf(network, [])),
  10,
  'ms',
);

const kind = { lengthMm: 590, widthMm: 225, heightMm: 108, massKg: 31.5 };
const input = (strings: number[], mixed = false): ArrangeInput => ({
  boxes: [0.3, -1.5, -3, -5].map((xM, i) => ({
    id: `b${i}`,
    tag: `box ${i}`,
    xM,
    yM: 0,
    zM: 0.6,
    lengthM: 1.4,
    widthM: 0.7,
    heightM: 0.36,
    marginMm: 20,
  })),
  kinds: mixed ? { m: kind, n: { ...kind, lengthMm: 400, massKg: 20 } } : { m: kind },
  strings: strings.map((count, i) => ({
    id: `s${i}`,
    counts: (mixed ? { m: count / 2, n: count / 2 } : { m: count }) as Record<string, number>,
  })),
  wheelbaseM: 4.2,
  frontKg: 2480,
  rearKg: 3520,
  changes: [],
  mains: { xM: 0, yM: 0, zM: 0.6 },
});
for (const [name, strings, mixed] of [
  ['24 modules, 4 boxes, 1 string', [24], false],
  ['24 modules, 4 boxes, 2 strings', [12, 12], false],
  ['24 modules, 4 boxes, 4 strings', [6, 6, 6, 6], false],
  ['24 modules of 2 kinds, 4 boxes, 2 strings', [12, 12], true],
] as const) {
  const search = arrange(input([...strings], mixed));
  const began = performance.now();
  let last = began;
  let longest = 0;
  for (let step = search.next(); step.done !== true; step = search.next()) {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  }
  report(`${name}: search`, (performance.now() - began) / 1000, 2, 's');
  report(`${name}: longest piece before it gives way`, longest, 100, 'ms');
}
process.exitCode = failed ? 1 : 0;
