import type { StepId } from '@torvek/core/figure';
import { createEvaluator, steps } from '@torvek/core/design';
import { edit, mainCircuit, type Design } from '@torvek/core/document';
import { pin, shapePack } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { Evaluator } from '@torvek/core/step';
import { libraryBus } from '../../demo/library-bus';

/** Evaluation of demo A after each of 34 kinds of edit, cold, and with ten times the circuits; in milliseconds. */
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
  'name of a circuit': (draft, i) => void (draft.circuits['circuit-heater']!.tag = `Heater ${i}`),
  'name of a device': (draft, i) => void (draft.devices['device-heater']!.tag = `Heater ${i}`),
  'name of a box': (draft, i) => void (draft.boxes['box-left']!.tag = `Left ${i}`),
  'place of a box': (draft, i) => void (draft.boxes['box-left']!.xM = 1 + i / 100),
  'a device more': (draft, i) =>
    void (draft.devices[`device-${i}`] = { tag: `Pump ${i}`, kind: 'other', minV: 250, maxV: 450 }),
  'a branch more': (draft, i) => {
    draft.circuits[`circuit-${i}`] = { ...draft.circuits['circuit-heater']!, tag: `Branch ${i}` };
    delete draft.circuits[`circuit-${i}`]!.device;
  },
  'a branch less': (draft, i) =>
    void delete draft.circuits[i % 2 === 0 ? 'circuit-heater' : 'circuit-compressor'],
  'length of a strap': (draft, i) => void (draft.bonds!['box-nose']!.lengthM = 0.1 + i / 100),
  'torque of a joint': (draft, i) => void (draft.joints!['joint-m8']!.torqueNm = 10 + i / 10),
  'gap in a box': (draft, i) => void (draft.boxes['box-nose']!.clearanceMm = 5 + i / 10),
  'surge of the mains': (draft, i) => void (draft.settings.impulseV = 1500 + 10 * i),
  'ambient at a fuse': (draft, i) => void (circuit(draft).fuseAmbientC = 20 + i),
  'contacts in a loop': (draft, i) => void (circuit(draft).contactOhm = 0.001 + i * 1e-5),
  'poles of a branch': (draft, i) =>
    void (draft.circuits['circuit-heater']!.poles = i % 2 === 0 ? 'both' : 'plus'),
};

/** The k-th of sorted times. */
const share = (times: readonly number[], fraction: number) =>
  times[Math.min(times.length - 1, Math.floor(times.length * fraction))]!;
const sorted = (times: number[]) => times.sort((a, b) => a - b);

/** Each kind of edit 25 times; the first five of each are not counted, for they are of code that was never run. */
function measure(evaluator: Evaluator, base: Design): Map<string, number[]> {
  const measured = new Map<string, number[]>();
  evaluator.evaluate(base);
  for (const [name, recipe] of Object.entries(edits)) {
    const times: number[] = [];
    for (let i = 1; i <= 25; i += 1) {
      const edited = edit(base, (draft) => recipe(draft as Design, i));
      if (edited === null) continue;
      evaluator.evaluate(base);
      const began = performance.now();
      evaluator.evaluate(edited.design);
      if (i > 5) times.push(performance.now() - began);
    }
    measured.set(name, sorted(times));
  }
  return measured;
}

/** Ten times the circuits and devices. */
function tenfold(design: Design): Design {
  return edit(design, (draft) => {
    const document = draft as Design;
    for (const [id, { device, ...one }] of Object.entries(design.circuits)) {
      if (one.role === 'main' || device === undefined) continue;
      for (let i = 1; i < 10; i += 1) {
        document.devices[`${device}-${i}`] = { ...design.devices[device]!, tag: `${device} ${i}` };
        document.circuits[`${id}-${i}`] = { ...one, tag: `${one.tag} ${i}`, device: `${device}-${i}` };
      }
    }
  })!.design;
}

let holds = true;
function report(name: string, value: number, limit: number, unit = 'ms'): void {
  holds &&= value <= limit;
  console.log(
    `  ${name.padEnd(40)} ${value.toFixed(2).padStart(8)} ${unit}, limit ${limit} ${unit}: ${value <= limit ? 'holds' : 'DOES NOT HOLD'}`,
  );
}

const first = measure(createEvaluator(), libraryBus.design);
if (process.argv.includes('--all'))
  for (const [name, times] of first)
    console.log(`  ${name.padEnd(22)} ${share(times, 0.5).toFixed(2).padStart(7)} ms`);
const all = sorted([...first.values()].flat());
report(`${first.size} kinds of edit, median`, share(all, 0.5), 4);
report(`${first.size} kinds of edit, 95th percentile`, share(all, 0.95), 12);
const doubled = [...steps, ...steps.map((step) => ({ ...step, id: `again-${step.id}` as StepId }))];
const twice = sorted([...measure(new Evaluator(doubled), libraryBus.design).values()].flat());
report('every step registered twice, median', share(twice, 0.5), 4);
report('every step registered twice, 95th', share(twice, 0.95), 12);
const cold = (design: Design) =>
  share(
    sorted(
      Array.from({ length: 15 }, () => {
        const began = performance.now();
        createEvaluator().evaluate(design);
        return performance.now() - began;
      }),
    ),
    0.5,
  );
const whole = cold(libraryBus.design);
report('from nothing', whole, 60);
report('ten times the circuits, times as long', cold(tenfold(libraryBus.design)) / whole, 12, '×');
process.exitCode = holds ? 0 : 1;
