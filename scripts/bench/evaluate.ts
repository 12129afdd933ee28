import { createEvaluator } from '@torvek/core/design';
import { edit, mainCircuit, type Design } from '@torvek/core/document';
import { pin, shapePack } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { libraryBus } from '../../demo/library-bus';

/** Warm evaluation of twenty named edits to demo A: the median of 25 each, in milliseconds. */
let made = 0;
const newId = (prefix: string) => `${prefix}-${(made += 1)}`;
const circuit = (draft: Design) => draft.circuits[mainCircuit]!;
const modules = catalogueOf('module');

const edits: Record<string, (draft: Design, i: number) => void> = {
  'modules in series': (draft, i) =>
    shapePack(draft, { strings: 2, modulesPerString: 5 + (i % 9), part: modules[0]! }, newId),
  'strings in parallel': (draft, i) =>
    shapePack(draft, { strings: 1 + (i % 3), modulesPerString: 8, part: modules[0]! }, newId),
  'kind of module': (draft, i) =>
    shapePack(draft, { strings: 2, modulesPerString: 8, part: modules[1 + (i % 5)]! }, newId),
  'cell resistance': (draft, i) => {
    const part = draft.parts['brackwater-m12@1']!;
    if (part.kind === 'module') part.data.cell.resistanceOhm = 0.0006 + i * 1e-5;
  },
  'link resistance': (draft, i) => void (draft.pack.linkResistanceOhm = 0.001 + i * 1e-4),
  'charge window': (draft, i) => void (draft.pack.socLowFraction = 0.05 + i * 0.002),
  'peak current': (draft, i) => void (draft.pack.peakCurrentA = 300 + i),
  'bus capacitance': (draft, i) =>
    void (draft.devices['device-inverter']!.busCapacitanceF = 0.001 + i * 1e-5),
  'device window': (draft, i) => void (draft.devices['device-charger']!.minV = 250 + i),
  'bleed resistor': (draft, i) => void (draft.devices['device-inverter']!.bleedOhm = 1500 + i),
  'load in pre-charge': (draft, i) => void (draft.devices['device-dcdc']!.prechargeLoadOhm = 600 + i),
  'time limit': (draft, i) => void (circuit(draft).timeoutS = 2 + i / 50),
  'pre-charge resistor': (draft, i) =>
    void (circuit(draft).resistor = pin(draft, catalogueOf('resistor')[i % 8]!)),
  'main fuse': (draft, i) => void (circuit(draft).fuse = pin(draft, catalogueOf('fuse')[i % 8]!)),
  'traction cable': (draft, i) => void (circuit(draft).cable = pin(draft, catalogueOf('cable')[i % 15]!)),
  'cable length': (draft, i) => void (circuit(draft).lengthM = 5 + i / 10),
  ambient: (draft, i) => void (circuit(draft).ambientC = 20 + i),
  'load profile': (draft, i) => void (circuit(draft).loadProfile![0]![1] = 300 + i),
  'a mass': (draft, i) => void (draft.masses['mass-motor']!.massKg = 100 + i),
  speed: (draft, i) => void (draft.vehicle.speedKmH = 40 + i),
};

const evaluator = createEvaluator();
evaluator.evaluate(libraryBus.design);
let worst = 0;
for (const [name, recipe] of Object.entries(edits)) {
  const times: number[] = [];
  for (let i = 1; i <= 25; i += 1) {
    const edited = edit(libraryBus.design, (draft) => recipe(draft as Design, i));
    if (edited === null) continue;
    const began = performance.now();
    evaluator.evaluate(edited.design);
    times.push(performance.now() - began);
  }
  const median = times.sort((a, b) => a - b)[times.length >> 1]!;
  worst = Math.max(worst, median);
  console.log(`  ${name.padEnd(22)} ${median.toFixed(2).padStart(7)} ms`);
}
console.log(
  `  slowest median ${worst.toFixed(2)} ms, limit 16 ms: ${worst < 16 ? 'holds' : 'DOES NOT HOLD'}`,
);
process.exitCode = worst < 16 ? 0 : 1;
