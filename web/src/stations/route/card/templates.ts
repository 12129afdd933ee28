import type { BendCardResult } from '@torvek/core/routing';

type Spot = readonly [x: number, y: number];

/** A bend drawn flat as large as it is, mm: y down, as paper is read. */
export interface BendTemplate {
  number: number;
  angleDeg: number;
  radiusMm: number;
  /** Along the middle of the tube, and along its two sides. */
  middle: Spot[];
  sides: [Spot[], Spot[]];
  /** Across the tube where the bend begins, has its middle, and ends. */
  marks: { at: 'begins' | 'middle' | 'ends'; from: Spot; to: Spot }[];
  /** Straight before and after that is drawn. */
  beforeMm: number;
  afterMm: number;
}

/** A sheet of a drawing that is larger than paper. */
export interface Sheet {
  column: number;
  row: number;
  /** Of the drawing at its upper left corner. */
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
  /** Crosses that lie on each other when the sheets are laid together, in the drawing’s own place. */
  crosses: Spot[];
}

/** Of each straight so much is drawn at most, mm: enough to hold a tube against. */
const straightMostMm = 140;
/** What both A4 and US letter print without losing an edge, mm. */
export const printable = { widthMm: 190, heightMm: 245 };
/** Sheets lie over one another by so much, mm. */
export const overlapMm = 15;
const aroundMm = 6;
const degree = Math.PI / 180;

const turnedBy = ([x, y]: Spot, rad: number): Spot => [
  x * Math.cos(rad) - y * Math.sin(rad),
  x * Math.sin(rad) + y * Math.cos(rad),
];

/**
 * A bend in its own plane: so much straight, the arc, so much straight.
 *
 * @param turnDeg the whole is turned on the paper by this
 */
export function bendTemplate(
  card: BendCardResult,
  index: number,
  outerMm: number,
  turnDeg = 0,
): BendTemplate {
  const bend = card.bends[index]!;
  const next = card.bends[index + 1]?.straightBeforeMm ?? card.lastStraightMm;
  const beforeMm = Math.min(bend.straightBeforeMm, straightMostMm);
  const afterMm = Math.min(next, straightMostMm);
  const angle = bend.angleDeg * degree;
  const radiusMm = bend.arcMm / angle;
  const centre: Spot = [0, radiusMm];
  const steps = Math.max(8, Math.ceil(bend.angleDeg / 3));
  /** A line at so much outside of the middle of the tube. */
  const lineAt = (outsideMm: number): Spot[] => {
    const own = radiusMm + outsideMm;
    const arc = Array.from({ length: steps + 1 }, (_, i): Spot => {
      const at = (angle * i) / steps;
      return [centre[0] + own * Math.sin(at), centre[1] - own * Math.cos(at)];
    });
    const [ex, ey] = arc.at(-1)!;
    return [
      [-beforeMm, -outsideMm],
      ...arc,
      [ex + afterMm * Math.cos(angle), ey + afterMm * Math.sin(angle)],
    ];
  };
  const across = (at: number): { from: Spot; to: Spot } => {
    const on = (own: number): Spot => [own * Math.sin(at), centre[1] - own * Math.cos(at)];
    return { from: on(radiusMm - outerMm / 2 - 4), to: on(radiusMm + outerMm / 2 + 4) };
  };
  const turn = (line: readonly Spot[]) => line.map((spot) => turnedBy(spot, turnDeg * degree));
  return {
    number: bend.number,
    angleDeg: bend.angleDeg,
    radiusMm,
    middle: turn(lineAt(0)),
    sides: [turn(lineAt(outerMm / 2)), turn(lineAt(-outerMm / 2))],
    marks: (
      [
        ['begins', 0],
        ['middle', angle / 2],
        ['ends', angle],
      ] as const
    ).map(([at, rad]) => {
      const { from, to } = across(rad);
      const [a, b] = turn([from, to]);
      return { at, from: a!, to: b! };
    }),
    beforeMm,
    afterMm,
  };
}

/** What a drawing covers, mm. */
export function extentOf({ sides, marks }: Pick<BendTemplate, 'sides' | 'marks'>) {
  const all = [...sides.flat(), ...marks.flatMap(({ from, to }) => [from, to])];
  const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
  return {
    xMm: Math.min(...xs) - aroundMm,
    yMm: Math.min(...ys) - aroundMm,
    widthMm: Math.max(...xs) - Math.min(...xs) + 2 * aroundMm,
    heightMm: Math.max(...ys) - Math.min(...ys) + 2 * aroundMm,
  };
}

/** The sheets that a drawing takes, row by row, and the crosses by which neighbours are laid on each other. */
export function sheetsOf(template: Pick<BendTemplate, 'sides' | 'marks'>): Sheet[] {
  const extent = extentOf(template);
  const stepX = printable.widthMm - overlapMm;
  const stepY = printable.heightMm - overlapMm;
  const counted = (size: number, sheet: number, step: number) =>
    size <= sheet ? 1 : 1 + Math.ceil((size - sheet) / step);
  const columns = counted(extent.widthMm, printable.widthMm, stepX);
  const rows = counted(extent.heightMm, printable.heightMm, stepY);
  // In the middle of each overlap, and a sheet’s quarter from either end of it.
  const seams = (count: number, from: number, step: number) =>
    Array.from({ length: count - 1 }, (_, i) => from + (i + 1) * step + overlapMm / 2);
  const along = (from: number, size: number, count: number, step: number) =>
    Array.from({ length: count }, (_, i) =>
      [0.25, 0.75].map((share) => from + i * step + share * size),
    ).flat();
  const crosses: Spot[] = [
    ...seams(columns, extent.xMm, stepX).flatMap((x) =>
      along(extent.yMm, printable.heightMm, rows, stepY).map((y): Spot => [x, y]),
    ),
    ...seams(rows, extent.yMm, stepY).flatMap((y) =>
      along(extent.xMm, printable.widthMm, columns, stepX).map((x): Spot => [x, y]),
    ),
  ];
  return Array.from({ length: rows * columns }, (_, i): Sheet => {
    const [row, column] = [Math.floor(i / columns), i % columns];
    const sheet = { xMm: extent.xMm + column * stepX, yMm: extent.yMm + row * stepY, ...printable };
    return {
      row,
      column,
      ...sheet,
      crosses: crosses.filter(
        ([x, y]) =>
          x > sheet.xMm && x < sheet.xMm + sheet.widthMm && y > sheet.yMm && y < sheet.yMm + sheet.heightMm,
      ),
    };
  });
}

/** The bend turned so that it takes the fewest sheets. */
export function bestTemplate(card: BendCardResult, index: number, outerMm: number): BendTemplate {
  let best: { template: BendTemplate; sheets: number; area: number } | null = null;
  for (let turnDeg = 0; turnDeg < 180; turnDeg += 5) {
    const template = bendTemplate(card, index, outerMm, turnDeg);
    const { widthMm, heightMm } = extentOf(template);
    const sheets = sheetsOf(template).length;
    const area = widthMm * heightMm;
    if (best === null || sheets < best.sheets || (sheets === best.sheets && area < best.area))
      best = { template, sheets, area };
  }
  return best!.template;
}

const path = (line: readonly Spot[]) =>
  `M${line.map(([x, y]) => `${x.toFixed(3)},${y.toFixed(3)}`).join(' L')}`;

/** One sheet as a drawing whose unit is the millimetre. */
export function sheetSvg(template: BendTemplate, sheet: Sheet): string {
  const { xMm, yMm, widthMm, heightMm } = sheet;
  const line = (d: string, width: number, dash = '') =>
    `<path d="${d}" fill="none" stroke="#000" stroke-width="${width}"${dash === '' ? '' : ` stroke-dasharray="${dash}"`}/>`;
  const cross = ([x, y]: Spot) => line(`M${x - 5},${y} H${x + 5} M${x},${y - 5} V${y + 5}`, 0.25);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${xMm} ${yMm} ${widthMm} ${heightMm}">`,
    ...template.sides.map((side) => line(path(side), 0.4)),
    line(path(template.middle), 0.2, '4 1.5 1 1.5'),
    ...template.marks.map(({ from, to }) => line(path([from, to]), 0.3)),
    ...template.marks.map(
      ({ at, to: [x, y] }) => `<text x="${x + 1.5}" y="${y + 1.2}" font-size="3.4">${at}</text>`,
    ),
    ...sheet.crosses.map(cross),
    '</svg>',
  ].join('');
}

/** A measure for every sheet: a printer that fits to the page shows here. mm. */
export const measure = {
  widthMm: 104,
  heightMm: 7,
  svg: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 104 7"><path d="M2,5 h100 M2,3 v4 M52,4 v2 M102,3 v4" fill="none" stroke="#000" stroke-width="0.3"/><text x="2" y="2.6" font-size="3">100 mm</text></svg>',
};
