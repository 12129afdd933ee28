import { describe, expect, test } from '@jest/globals';
import { edit } from '@torvek/core/document';
import { Box3, Mesh, Vector3 } from 'three';
import { libraryBus } from '../../../../../demo/library-bus';
import { inScene, sceneOf } from './scene';

const colours = {
  hv: '#f60',
  soft: '#888',
  line: '#ccc',
  coolant: '#088',
  lowvolt: '#840',
  stop: '#c00',
  ink: '#111',
};

describe('the vehicle in three dimensions', () => {
  test('ahead stays ahead, up is up, left goes away from who looks from the right', () => {
    expect(inScene([1, 2, 3]).toArray()).toEqual([1, 3, -2]);
  });

  test('everything with a place is there, in metres where it is', () => {
    const scene = sceneOf(libraryBus.design, 'run-inlet', [{ point: [0, 0, 1] }], colours);
    const box = scene.getObjectByName('Tail box')!;
    const size = new Box3().setFromObject(box).getSize(new Vector3());
    expect(size.toArray().map((one) => Number(one.toFixed(6)))).toEqual([1.3, 0.4, 0.9]);
    expect(box.position.toArray().map((one) => Number(one.toFixed(6)) + 0)).toEqual([-4.9, 0.72, 0]);
    const run = new Box3().setFromObject(scene.getObjectByName('Over the axle')!);
    expect(run.min.x).toBeCloseTo(-5.65, 1);
    expect(run.max.y).toBeCloseTo(1.05 + 0.028, 2);
    // Six points of the run, and one spot.
    const balls = scene.children.filter((one) => one instanceof Mesh && one.name === '');
    expect(balls).toHaveLength(7);
  });

  test('what has no place is left out', () => {
    const { design } = edit(libraryBus.design, (draft) => {
      delete draft.boxes['box-tail']!.heightM;
      delete draft.runs!['run-inlet']!.bendRadiusMm;
    })!;
    const scene = sceneOf(design, '', [], colours);
    expect([scene.getObjectByName('Tail box'), scene.getObjectByName('Over the axle')]).toEqual([
      undefined,
      undefined,
    ]);
    expect(scene.getObjectByName('Right rail to the compressor')).toBeDefined();
  });
});
