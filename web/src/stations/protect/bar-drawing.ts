import { barLengthMm, defaultOverhangMm } from '@torvek/core/conductor';
import type { BusbarItem } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';

/** A bar as it is cut and drilled, mm, its lower left corner at the origin. */
export interface BarDrawing {
  tag: string;
  lengthMm: number;
  widthMm: number;
  thicknessMm: number;
  holes: { xMm: number; yMm: number; diameterMm: number }[];
  /** The stretch that stays flexible: laminated or braided, not clamped. */
  flex: { fromMm: number; toMm: number } | null;
  notes: string[];
}

/** The drawing of a bar, or null while its sizes are not given. */
export function drawBar(bar: BusbarItem): BarDrawing | null {
  const { tag, widthMm, thicknessMm, betweenMm } = bar;
  if (!(widthMm! > 0) || !(thicknessMm! > 0) || !(betweenMm! > 0)) return null;
  const lengthMm = barLengthMm(bar);
  const overhangMm = bar.overhangMm ?? defaultOverhangMm;
  const diameters = [bar.holeMm, bar.otherHoleMm ?? bar.holeMm];
  const flexMm = Math.min(bar.flexMm ?? 0, betweenMm!);
  const middle = lengthMm / 2;
  return {
    tag,
    lengthMm,
    widthMm: widthMm!,
    thicknessMm: thicknessMm!,
    holes: diameters.flatMap((diameterMm, i) =>
      diameterMm !== undefined && diameterMm > 0
        ? [{ xMm: i === 0 ? overhangMm : lengthMm - overhangMm, yMm: widthMm! / 2, diameterMm }]
        : [],
    ),
    flex: flexMm > 0 ? { fromMm: middle - flexMm / 2, toMm: middle + flexMm / 2 } : null,
    notes: [
      `${tag}: ${bar.material ?? 'copper'}, ${formatNumber(lengthMm, 4)} x ${formatNumber(widthMm!)} x ${formatNumber(thicknessMm!)} mm`,
      `studs ${formatNumber(betweenMm!, 4)} mm apart`,
      ...(flexMm > 0 ? [`flexible section ${formatNumber(flexMm)} mm in the middle`] : []),
      'edges deburred; insulate by dipping or powder, contact faces bare',
    ],
  };
}

/** The drawing as SVG at full size: one unit is one millimetre. */
export function barSvg({ lengthMm, widthMm, holes, flex, notes }: BarDrawing): string {
  const margin = 8;
  const textMm = 3.5;
  const heightMm = widthMm + 2 * margin + notes.length * textMm * 1.4;
  const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const parts = [
    `<rect x="0" y="0" width="${lengthMm}" height="${widthMm}" fill="none" stroke="#000" stroke-width="0.35"/>`,
    ...(flex === null
      ? []
      : [
          `<rect x="${flex.fromMm}" y="0" width="${flex.toMm - flex.fromMm}" height="${widthMm}" fill="none" stroke="#000" stroke-width="0.2" stroke-dasharray="2 1"/>`,
        ]),
    ...holes.map(
      ({ xMm, yMm, diameterMm }) =>
        `<circle cx="${xMm}" cy="${yMm}" r="${diameterMm / 2}" fill="none" stroke="#000" stroke-width="0.35"/>`,
    ),
    ...notes.map(
      (note, i) =>
        `<text x="0" y="${widthMm + margin + i * textMm * 1.4}" font-size="${textMm}" font-family="sans-serif">${escape(note)}</text>`,
    ),
  ];
  const wide = Math.max(lengthMm, 120) + 2 * margin;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${wide}mm" height="${heightMm}mm" viewBox="${-margin} ${-margin} ${wide} ${heightMm}">${parts.join('')}</svg>`;
}

/** The drawing as DXF in millimetres: outline, holes, flexible section on layers of their own. */
export async function barDxf({ lengthMm, widthMm, holes, flex, notes }: BarDrawing): Promise<string> {
  const { Colors, DxfWriter, LineTypes, point3d, Units } = await import('@tarikjabiri/dxf');
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('CUT', Colors.White, LineTypes.Continuous);
  dxf.addLayer('FLEX', Colors.Cyan, LineTypes.Continuous);
  dxf.addLayer('NOTES', Colors.Green, LineTypes.Continuous);
  const box = (fromMm: number, toMm: number, layerName: string) => {
    const corners = [
      [fromMm, 0],
      [toMm, 0],
      [toMm, widthMm],
      [fromMm, widthMm],
    ] as const;
    corners.forEach(([x, y], i) => {
      const [toX, toY] = corners[(i + 1) % 4]!;
      dxf.addLine(point3d(x, y), point3d(toX, toY), { layerName });
    });
  };
  box(0, lengthMm, 'CUT');
  for (const { xMm, yMm, diameterMm } of holes)
    dxf.addCircle(point3d(xMm, yMm), diameterMm / 2, { layerName: 'CUT' });
  if (flex !== null) box(flex.fromMm, flex.toMm, 'FLEX');
  notes.forEach((note, i) => dxf.addText(point3d(0, -8 - i * 5), 3.5, note, { layerName: 'NOTES' }));
  return dxf.stringify();
}
