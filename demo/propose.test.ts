import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import type { RaisedCheck } from '@torvek/core/figure';
import { edit, type Design } from '@torvek/core/document';
import { propose, proposeInputOf, type Proposal } from '@torvek/core/routing';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void) => edit(bus, (draft) => recipe(draft as Design))!.design;
function ways(design: Design, run: string): Proposal[] {
  const { input, gaps } = proposeInputOf(design, run);
  if (input === null) throw new Error(JSON.stringify(gaps));
  const search = propose(input);
  let step = search.next();
  let last = 0;
  while (step.done !== true) {
    expect(step.value).toBeGreaterThanOrEqual(last - 1e-9);
    last = step.value;
    step = search.next();
  }
  return step.value;
}
const taken = (design: Design, run: string, { points }: Proposal) =>
  edit(design, (draft) => {
    const own = (draft as Design).runs![run]!;
    own.points = points.map(([xM, yM, zM], i) => ({
      xM,
      yM,
      zM,
      ...(i === 0 && { after: 'clipped' as const }),
    }));
  })!.design;
const against = /^(route|run)\./;

describe('ways that are proposed', () => {
  test.each(Object.keys(bus.runs!))('%s: each holds as it is judged once it is taken', (run) => {
    const found = ways(bus, run);
    expect(found.length).toBeGreaterThan(0);
    for (const one of found) {
      const raised = evaluate(taken(bus, run, one)).checks.flatMap((check) =>
        check.state === 'raised' &&
        against.test(check.rule.id) &&
        check.subjects.some((id) => id.startsWith(run)) &&
        // A loop below the entry is drawn by hand: the proposal says so.
        !(check.rule.id === 'run.no-drip' && one.says.includes('still has to hang below its entry'))
          ? [check.message]
          : [],
      );
      expect([one.says, raised]).toEqual([one.says, []]);
      expect(one.points[0]).toEqual(Object.values(bus.runs![run]!.points![0]!).slice(0, 3));
    }
    expect(found.map(({ lengthM }) => lengthM)).toEqual(
      found.map(({ lengthM }) => lengthM).sort((a, b) => a - b),
    );
  });

  test('a wall in between is gone around, and where there is no way none is proposed', () => {
    const free = ways(bus, 'run-dcdc')[0]!;
    const wall = changed((draft) => {
      draft.zones!['zone-wall'] = {
        tag: 'Wall',
        kind: 'forbidden',
        xM: -2.6,
        yM: 0.3,
        zM: 0.8,
        lengthM: 1,
        widthM: 0.1,
        heightM: 0.8,
      };
    });
    const around = ways(wall, 'run-dcdc');
    expect(around[0]!.lengthM).toBeGreaterThan(free.lengthM + 0.1);
    const closed = changed((draft) => {
      draft.zones!['zone-wall'] = {
        tag: 'Wall',
        kind: 'forbidden',
        xM: -2.6,
        yM: 0.3,
        zM: 0.8,
        lengthM: 9,
        widthM: 0.1,
        heightM: 2,
      };
    });
    expect(ways(closed, 'run-dcdc')).toEqual([]);
  });

  test('what can be taken out is led around, and beside that tried as if it were gone, with its hours', () => {
    const carrier = {
      tag: 'Spare wheel carrier',
      kind: 'obstacle' as const,
      xM: -2.6,
      yM: 0.3,
      zM: 0.8,
      lengthM: 1,
      widthM: 0.1,
      heightM: 0.8,
      outHours: 1.5,
    };
    const inTheWay = changed((draft) => void (draft.zones!['zone-carrier'] = carrier));
    const found = ways(inTheWay, 'run-dcdc');
    const [through, around] = [
      found.filter(({ out }) => out.length > 0),
      found.filter(({ out }) => out.length === 0),
    ];
    expect(through[0]!.out).toEqual(['zone-carrier']);
    expect(through[0]!.says).toMatch(/^with Spare wheel carrier out for good \(1\.5 h\), /);
    expect(around[0]!.lengthM).toBeGreaterThan(through[0]!.lengthM + 0.1);
    const obstacleOf = (design: Design) =>
      evaluate(design).checks.find(
        ({ rule, subjects }) => rule.id === 'run.obstacle' && subjects[0] === 'run-dcdc',
      ) as RaisedCheck & { state: string };
    expect(obstacleOf(taken(inTheWay, 'run-dcdc', around[0]!)).state).toBe('clear');
    const laidThrough = taken(inTheWay, 'run-dcdc', through[0]!);
    expect(obstacleOf(laidThrough).message).toMatch(/Spare wheel carrier.*1\.5 h to take out/);
    const gone = edit(
      laidThrough,
      (draft) => void ((draft as Design).zones!['zone-carrier']!.staysOut = true),
    )!;
    expect(obstacleOf(gone.design).state).toBe('clear');
    expect(ways(gone.design, 'run-dcdc').every(({ out }) => out.length === 0)).toBe(true);
  });

  test('what has no place is said, for no way can be kept away from it', () => {
    const { unseen } = proposeInputOf(bus, 'run-dcdc');
    const placed = ['device-dcdc', 'device-compressor', 'device-inlet'];
    expect(unseen).toEqual(
      Object.entries(bus.devices).flatMap(([id, { tag }]) => (placed.includes(id) ? [] : [tag])),
    );
    const half = changed((draft) => {
      delete draft.hazards!['hazard-shaft']!.points![1]!.zM;
      delete draft.zones!['zone-hatch']!.heightM;
      delete draft.boxes['box-tail']!.xM;
    });
    expect(proposeInputOf(half, 'run-dcdc').unseen).toEqual([
      bus.boxes['box-tail']!.tag,
      ...unseen,
      'Swing of the engine hatch',
      'Propeller shaft',
    ]);
  });

  test('what is missing is named', () => {
    const bare = changed((draft) => {
      draft.runs!['run-dcdc'] = { tag: 'Bare' };
    });
    expect(proposeInputOf(bare, 'run-dcdc').gaps.map((gap) => 'path' in gap && gap.path)).toEqual([
      'runs.run-dcdc.points',
      'runs.run-dcdc.circuits',
      'runs.run-dcdc.bendRadiusMm',
    ]);
  });
});
