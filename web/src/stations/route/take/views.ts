import { isHoseRun, runGeometry, type Design } from '@torvek/core/document';
import { pointOf, type Piece } from '@torvek/core/space';
import { bodyOf } from '../runs/drawing';

/** Point on a sheet, mm: to the right is towards the front of the vehicle, up is up, or its left. */
type OnSheet = readonly [xMm: number, yMm: number];
type InVehicle = readonly [xM: number, yM: number, zM: number];

/** What is drawn alike, with its name in a drawing program. */
export const layers = {
  BODY: { colour: '#8a93a0', widthMm: 8, dash: null },
  BOXES: { colour: '#b4560a', widthMm: 6, dash: null },
  DEVICES: { colour: '#2d4a5e', widthMm: 6, dash: null },
  ZONES: { colour: '#a12622', widthMm: 4, dash: '40 25' },
  LINES: { colour: '#7a5c45', widthMm: 8, dash: '60 30' },
  HV: { colour: '#e06a00', widthMm: 14, dash: null },
  CONDUIT: { colour: '#5d6874', widthMm: 4, dash: null },
  COOLANT: { colour: '#0f7478', widthMm: 14, dash: null },
  CLIPS: { colour: '#1d232b', widthMm: 4, dash: null },
  TEXT: { colour: '#1d232b', widthMm: 0, dash: null },
} as const;
export type Layer = keyof typeof layers;

export interface Views {
  lines: { layer: Layer; points: OnSheet[]; closed: boolean }[];
  circles: { layer: Layer; at: OnSheet; radiusMm: number }[];
  texts: { at: OnSheet; heightMm: number; text: string }[];
}

/** Bends in steps of 5°: most are seen askew. */
function along(pieces: readonly Piece[]): InVehicle[] {
  const first = pieces[0];
  if (first === undefined) return [];
  return [
    first.from,
    ...pieces.flatMap((piece) => {
      const steps = piece.kind === 'arc' ? Math.max(2, Math.ceil((piece.turn * 180) / Math.PI / 5)) : 1;
      return Array.from({ length: steps }, (_, i) => pointOf(piece, (i + 1) / steps));
    }),
  ];
}

const whole = ({ xM, yM, zM }: { xM?: number; yM?: number; zM?: number }): InVehicle | null =>
  xM === undefined || yM === undefined || zM === undefined ? null : [xM, yM, zM];

/** A letter’s width over its height, on average. */
const letterWide = 0.58;
/** Room between the two views, mm. */
const gapMm = 400;

/**
 * Both views of a vehicle in millimetres at full size, in line with each other: from above, and over it from the right. What has no whole
 * place is left out.
 *
 * @param clips places of clips along each run, in the vehicle frame, m
 * @param notes lines of text below: whose it is, and as of when
 */
export function viewsOf(
  design: Design,
  clips: Readonly<Record<string, readonly InVehicle[]>>,
  notes: readonly string[],
): Views {
  const { vehicle } = design;
  const { wheelbaseM, frontM, longM, wideM, highM } = bodyOf(vehicle);
  const sideMm = (wideM / 2) * 1000 + gapMm;
  const made: Views = { lines: [], circles: [], texts: [] };
  /** From above: y is to the left. From the right: z is up, over the other view. */
  const views: ((point: InVehicle) => OnSheet)[] = [
    ([x, y]) => [x * 1000, y * 1000],
    ([x, , z]) => [x * 1000, z * 1000 + sideMm],
  ];
  /** Below those that stand there already. */
  const label = ([x, y]: OnSheet, text: string, heightMm = 45) => {
    const wide = (of: string, high: number) => of.length * high * letterWide;
    const free = (at: number) =>
      made.texts.every(
        (one) =>
          one.at[0] > x + wide(text, heightMm) ||
          one.at[0] + wide(one.text, one.heightMm) < x ||
          one.at[1] > at + heightMm * 1.2 ||
          one.at[1] + one.heightMm * 1.2 < at,
      );
    let at = y;
    for (let tries = 0; tries < 8 && !free(at); tries += 1) at -= heightMm * 1.3;
    made.texts.push({ at: [x, at], heightMm, text });
  };
  const box = (layer: Layer, low: InVehicle, high: InVehicle, name?: string) => {
    for (const view of views) {
      const [[left, bottom], [right, top]] = [view(low), view(high)];
      const points: OnSheet[] = [
        [left, bottom],
        [right, bottom],
        [right, top],
        [left, top],
      ];
      made.lines.push({ layer, points, closed: true });
      if (name !== undefined) label([left + 20, top - 65], name);
    }
  };
  const line = (layer: Layer, points: readonly InVehicle[], name?: string) => {
    for (const view of views) {
      made.lines.push({ layer, points: points.map(view), closed: false });
      const middle = points[Math.floor((points.length - 1) / 2)];
      if (name !== undefined && middle !== undefined) {
        const [x, y] = view(middle);
        label([x + 20, y + 20], name);
      }
    }
  };
  box('BODY', [frontM - longM, -wideM / 2, 0], [frontM, wideM / 2, highM]);
  const wheelMm = ((vehicle.wheelDiameterM ?? 0.65) / 2) * 1000;
  for (const xM of [0, -wheelbaseM])
    made.circles.push({ layer: 'BODY', at: [xM * 1000, wheelMm + sideMm], radiusMm: wheelMm });
  const solids: [Layer, Readonly<Record<string, PlacedThing>>][] = [
    ['BOXES', design.boxes],
    ['DEVICES', design.devices],
    [
      'ZONES',
      // What stays out is no part of the vehicle any more.
      Object.fromEntries(
        Object.entries(design.zones ?? {}).filter(
          ([, one]) => one.kind !== 'obstacle' || one.staysOut !== true,
        ),
      ),
    ],
  ];
  for (const [layer, things] of solids)
    for (const { tag, lengthM, widthM, heightM, ...at } of Object.values(things)) {
      const middle = whole(at);
      if (middle === null || lengthM === undefined || widthM === undefined || heightM === undefined) continue;
      const [x, y, z] = middle;
      box(
        layer,
        [x - lengthM / 2, y - widthM / 2, z - heightM / 2],
        [x + lengthM / 2, y + widthM / 2, z + heightM / 2],
        tag,
      );
    }
  for (const { tag, points = [] } of Object.values(design.hazards ?? {})) {
    const placed = points.flatMap((one) => {
      const at = whole(one);
      return at === null ? [] : [at];
    });
    if (placed.length > 1 && placed.length === points.length) line('LINES', placed, tag);
  }
  for (const [id, run] of Object.entries(design.runs ?? {})) {
    const found = runGeometry(run);
    if (found === null) continue;
    const way = along(found.path.pieces);
    line(isHoseRun(run) ? 'COOLANT' : 'HV', way, run.tag);
    // The sharp corners of the points: where tubes are, and what a table of points can be held against.
    found.ways.forEach((laidAs, leg) => {
      if (laidAs === 'conduit') line('CONDUIT', [found.legs.points[leg]!, found.legs.points[leg + 1]!]);
    });
    for (const at of clips[id] ?? [])
      for (const view of views) made.circles.push({ layer: 'CLIPS', at: view(at), radiusMm: 12 });
  }
  const leftMm = (frontM - longM) * 1000;
  label([leftMm, sideMm + highM * 1000 + 60], 'From the right, front to the right', 60);
  label([leftMm, (wideM / 2) * 1000 + 60], 'From above', 60);
  notes.forEach((text, i) => label([leftMm, (-wideM / 2) * 1000 - 130 - i * 85], text, 60));
  return made;
}

interface PlacedThing {
  tag: string;
  xM?: number;
  yM?: number;
  zM?: number;
  lengthM?: number;
  widthM?: number;
  heightM?: number;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const n = (value: number) => String(Math.round(value * 10) / 10);

/** Both views as SVG: one unit is one millimetre of the vehicle, the sheet a tenth of that. */
export function viewsSvg({ lines, circles, texts }: Views): string {
  const xs = [...lines.flatMap(({ points }) => points.map(([x]) => x)), ...texts.map(({ at }) => at[0])];
  const ys = [
    ...lines.flatMap(({ points }) => points.map(([, y]) => y)),
    ...texts.map(({ at, heightMm }) => at[1] + heightMm),
  ];
  const margin = 150;
  const [left, right] = [Math.min(...xs) - margin, Math.max(...xs) + margin];
  const [bottom, top] = [Math.min(...ys) - margin, Math.max(...ys) + margin];
  const group = (layer: Layer) => {
    const { colour, widthMm, dash } = layers[layer];
    const drawn = [
      ...lines
        .filter((one) => one.layer === layer)
        .map(
          ({ points, closed }) =>
            `<path d="${points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${n(x)} ${n(-y)}`).join('')}${closed ? 'Z' : ''}"/>`,
        ),
      ...circles
        .filter((one) => one.layer === layer)
        .map(({ at: [x, y], radiusMm }) => `<circle cx="${n(x)}" cy="${n(-y)}" r="${n(radiusMm)}"/>`),
    ];
    return drawn.length === 0
      ? ''
      : `<g id="${layer}" fill="none" stroke="${colour}" stroke-width="${widthMm}"${dash === null ? '' : ` stroke-dasharray="${dash}"`}>${drawn.join('')}</g>`;
  };
  const words = texts
    .map(
      ({ at: [x, y], heightMm, text }) =>
        `<text x="${n(x)}" y="${n(-y)}" font-size="${heightMm}">${escaped(text)}</text>`,
    )
    .join('');
  const [wide, high] = [right - left, top - bottom];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(wide / 10)}mm" height="${n(high / 10)}mm" viewBox="${n(left)} ${n(-top)} ${n(wide)} ${n(high)}">${(Object.keys(layers) as Layer[]).map(group).join('')}<g id="TEXT" font-family="sans-serif" fill="${layers.TEXT.colour}">${words}</g></svg>`;
}

/** Both views as DXF in millimetres at full size, what is drawn alike on layers of its own. */
export async function viewsDxf({ lines, circles, texts }: Views): Promise<string> {
  const { Colors, DxfWriter, LineTypes, point3d, Units } = await import('@tarikjabiri/dxf');
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const colours: Record<Layer, number> = {
    BODY: Colors.White,
    BOXES: Colors.Yellow,
    DEVICES: Colors.Blue,
    ZONES: Colors.Magenta,
    LINES: Colors.Green,
    HV: Colors.Red,
    CONDUIT: Colors.White,
    COOLANT: Colors.Cyan,
    CLIPS: Colors.White,
    TEXT: Colors.White,
  };
  for (const layer of Object.keys(layers) as Layer[])
    dxf.addLayer(layer, colours[layer], LineTypes.Continuous);
  for (const { layer, points, closed } of lines)
    points.forEach(([x, y], i) => {
      const next = points[i + 1] ?? (closed ? points[0] : undefined);
      if (next !== undefined) dxf.addLine(point3d(x, y), point3d(next[0], next[1]), { layerName: layer });
    });
  for (const { layer, at, radiusMm } of circles)
    dxf.addCircle(point3d(at[0], at[1]), radiusMm, { layerName: layer });
  for (const { at, heightMm, text } of texts)
    dxf.addText(point3d(at[0], at[1]), heightMm, text, { layerName: 'TEXT' });
  return dxf.stringify();
}
