import { createEvaluator } from '@torvek/core/design';
import { edit, type Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { libraryBus } from '../../demo/library-bus';

/** All protection of a car at once: twelve circuits, forty faults each, a load of 1800 s at 1 s in each. */
const profile = (peakA: number) =>
  Array.from({ length: 1800 }, (_, i): [number, number] => [
    1,
    peakA * (0.35 + 0.3 * Math.sin(i / 17) + 0.2 * Math.sin(i / 131)),
  ]);
const { design } = edit(libraryBus.design, (draft) => {
  const document = draft as Design;
  const model = document.circuits['circuit-heater']!;
  for (let i = Object.keys(document.circuits).length; i < 12; i += 1) {
    document.devices[`device-b${i}`] = {
      tag: `Branch ${i}`,
      kind: 'heater',
      minV: 200,
      maxV: 450,
      busCapacitanceF: 0,
    };
    document.circuits[`circuit-b${i}`] = {
      ...(JSON.parse(JSON.stringify(model)) as typeof model),
      tag: `Branch ${i}`,
      device: `device-b${i}`,
      lengthM: 1 + i / 2,
      cable: pin(document, catalogueOf('cable')[(i * 3) % 12]!),
    };
  }
  for (const one of Object.values(document.circuits))
    one.loadProfile = profile(one.role === 'main' ? 400 : 30);
})!;
const evaluator = createEvaluator();
evaluator.evaluate(design);
const times = Array.from({ length: 15 }, (_, i) => {
  // Another length, place and load each time: everything about every circuit is computed anew, the pack is not.
  const next = edit(design, (draft) => {
    for (const one of Object.values(draft.circuits)) {
      one.lengthM = (one.lengthM ?? 1) + (i + 1) / 100;
      one.ambientC = 40 + (i + 1) / 10;
      one.loadProfile![0]![1] += i + 1;
    }
  })!.design;
  const began = performance.now();
  evaluator.evaluate(next);
  return performance.now() - began;
}).sort((a, b) => a - b);
const median = times[times.length >> 1]!;
console.log(
  `  all circuits anew, ${Object.keys(design.circuits).length} circuits: median ${median.toFixed(0)} ms (limit 100), slowest ${times.at(-1)!.toFixed(0)} ms`,
);
process.exitCode = median <= 100 ? 0 : 1;
