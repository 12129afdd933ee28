import { isHoseRun, runGeometry, type Design, type Id } from '@torvek/core/document';
import { solidOf } from '@torvek/core/routing';
import { pointOf, type Piece } from '@torvek/core/space';
import {
  BoxGeometry,
  CurvePath,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineCurve3,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  SphereGeometry,
  TubeGeometry,
  Vector3,
} from 'three';

/** Colours by what they stand for, as the rest of the app has them. */
export interface Colours {
  hv: string;
  soft: string;
  line: string;
  coolant: string;
  lowvolt: string;
  stop: string;
  ink: string;
}

/** A spot where a run comes too near to a line. */
export interface Spot {
  point: readonly [number, number, number];
}

/** From the vehicle frame (ahead, left, up) to that of the scene, whose y is up. Both in metres. */
export const inScene = ([x, y, z]: readonly [number, number, number]) => new Vector3(x, z, -y);

/** Points along a way: straights by their ends, bends in small steps. */
export function wayPoints(pieces: readonly Piece[]): Vector3[] {
  const first = pieces[0];
  if (first === undefined) return [];
  const points = [inScene(first.from)];
  for (const piece of pieces) {
    const steps = piece.kind === 'arc' ? Math.max(3, Math.ceil((piece.turn * 180) / Math.PI / 6)) : 1;
    for (let i = 1; i <= steps; i += 1) points.push(inScene(pointOf(piece, i / steps)));
  }
  return points;
}

function tube(points: readonly Vector3[], radiusM: number, colour: string, name: string): Mesh {
  const path = new CurvePath<Vector3>();
  for (let i = 1; i < points.length; i += 1) path.add(new LineCurve3(points[i - 1]!, points[i]!));
  const mesh = new Mesh(
    new TubeGeometry(path, Math.max(2, points.length * 3), radiusM, 10),
    new MeshLambertMaterial({ color: colour }),
  );
  mesh.name = name;
  return mesh;
}

function block(
  thing: Parameters<typeof solidOf>[0],
  name: string,
  colour: string,
  opacity: number,
): Group | null {
  const solid = solidOf(thing);
  if (solid === null) return null;
  const { low, high } = solid;
  const box = new BoxGeometry(high[0] - low[0], high[2] - low[2], high[1] - low[1]);
  const group = new Group();
  group.name = name;
  const body = new Mesh(
    box,
    new MeshLambertMaterial({ color: colour, transparent: true, opacity, depthWrite: false }),
  );
  group.add(body, new LineSegments(new EdgesGeometry(box), new LineBasicMaterial({ color: colour })));
  group.position.copy(inScene([(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]));
  return group;
}

/** The vehicle as an outline: as long, high and wide as it is, or as such vehicles are. */
function outline(
  { wheelbaseM = 2.6, lengthM, frontOverhangM, heightM = 1.6 }: Design['vehicle'],
  colour: string,
): Group | null {
  const front = frontOverhangM ?? wheelbaseM * 0.3;
  const long = Math.min(Math.max(lengthM ?? wheelbaseM * 1.6, 1), 25);
  const high = Math.min(Math.max(heightM, 0.6), 2) - 0.3;
  return block(
    {
      xM: front - long / 2,
      yM: 0,
      zM: 0.3 + high / 2,
      lengthM: long,
      widthM: Math.min(2.4, Math.max(1.4, long * 0.3)),
      heightM: high,
    },
    'vehicle',
    colour,
    0.04,
  );
}

/**
 * Everything of a design that has a place, in metres with y up: boxes, devices, zones, lines to stay away from, runs with their bends.
 *
 * @param picked the run that stands out
 * @param spots where a run is too near to a line
 */
export function sceneOf(design: Design, picked: Id, spots: readonly Spot[], colours: Colours): Group {
  const all = new Group();
  all.name = 'vehicle and runs';
  const add = (one: Group | Mesh | null) => {
    if (one !== null) all.add(one);
  };
  add(outline(design.vehicle, colours.soft));
  for (const box of Object.values(design.boxes)) add(block(box, box.tag, colours.hv, 0.22));
  for (const device of Object.values(design.devices)) add(block(device, device.tag, colours.soft, 0.45));
  for (const zone of Object.values(design.zones ?? {})) {
    if (zone.kind === 'obstacle' && zone.staysOut === true) continue;
    const [colour, opacity] =
      zone.kind === 'corridor'
        ? [colours.line, 0.05]
        : zone.kind === 'obstacle'
          ? [colours.soft, 0.2]
          : [colours.stop, 0.12];
    add(block(zone, zone.tag, colour, opacity));
  }
  for (const line of Object.values(design.hazards ?? {})) {
    const points = (line.points ?? []).flatMap(({ xM, yM, zM }) =>
      xM === undefined || yM === undefined || zM === undefined ? [] : [inScene([xM, yM, zM])],
    );
    if (points.length < 2) continue;
    const colour =
      line.kind === 'coolant' ? colours.coolant : line.kind === '12 V loom' ? colours.lowvolt : colours.soft;
    add(tube(points, Math.max((line.radiusMm ?? 0) / 1000, 0.004), colour, line.tag));
  }
  for (const [id, run] of Object.entries(design.runs ?? {})) {
    const found = runGeometry(run);
    if (found === null) continue;
    const points = wayPoints(found.path.pieces);
    const colour = isHoseRun(run) ? colours.coolant : colours.hv;
    add(tube(points, id === picked ? 0.028 : 0.014, colour, run.tag));
    if (id === picked)
      for (const at of found.points) {
        const ball = new Mesh(
          new SphereGeometry(0.03, 12, 10),
          new MeshBasicMaterial({ color: colours.ink }),
        );
        ball.position.copy(inScene(at));
        all.add(ball);
      }
  }
  for (const { point } of spots) {
    const ball = new Mesh(
      new SphereGeometry(0.06, 16, 12),
      new MeshBasicMaterial({ color: colours.stop, transparent: true, opacity: 0.5 }),
    );
    ball.position.copy(inScene(point));
    all.add(ball);
  }
  return all;
}

/** Lets go of what the graphics card holds. */
export function discard(group: Group): void {
  group.traverse((one) => {
    if (one instanceof Mesh || one instanceof LineSegments) {
      (one.geometry as { dispose(): void }).dispose();
      (one.material as { dispose(): void }).dispose();
    }
  });
}
