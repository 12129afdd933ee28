import { formatNumber } from '@torvek/core/quantity';
import type { BendCardResult } from '@torvek/core/routing';
import type { Content } from 'pdfmake/interfaces';
import { turnText } from './tube-drawing';

/** The straight tube with its marks, as wide as the sheet. */
function tubeSvg({ cutLengthMm, bends }: BendCardResult): string {
  const x = (mm: number) => 10 + (mm / cutLengthMm) * 500;
  const marks = bends
    .map(
      ({ number, startMarkMm, endMarkMm, centreMarkMm }) =>
        `<rect x="${x(startMarkMm)}" y="20" width="${x(endMarkMm) - x(startMarkMm)}" height="12" fill="#bbb"/>` +
        `<line x1="${x(startMarkMm)}" x2="${x(startMarkMm)}" y1="14" y2="38" stroke="#000"/>` +
        `<text x="${x(centreMarkMm)}" y="10" font-size="9" text-anchor="middle">${number}</text>`,
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="520" height="44"><rect x="10" y="20" width="500" height="12" fill="none" stroke="#000"/>${marks}</svg>`;
}

/** A card to take to the bender. */
export async function printCard(
  job: string,
  name: string,
  mirrored: boolean,
  card: BendCardResult,
  startMm: number,
): Promise<void> {
  const { makePdf, savePdf } = await import('../../../parts/pdf');
  const n = (value: number) => formatNumber(value, 5);
  const head = [
    'bend',
    'mark at, mm',
    'set to, °',
    'comes out at, °',
    'turn the tube first',
    'middle, mm',
    'ends, mm',
  ];
  const rows = card.bends.map((bend) => [
    { text: String(bend.number), bold: true },
    { text: n(bend.startMarkMm), bold: true, fontSize: 13 },
    { text: n(bend.setAngleDeg), bold: true, fontSize: 13 },
    n(bend.angleDeg),
    { text: bend.number === 1 ? 'as it lies' : turnText(bend.rotationDeg), bold: true },
    n(bend.centreMarkMm),
    n(bend.endMarkMm),
  ]);
  const content: Content[] = [
    { text: `${name}${mirrored ? ', mirrored twin' : ''}`, fontSize: 16, bold: true },
    { text: job, color: '#555', margin: [0, 0, 0, 8] },
    {
      text: `Cut ${n(card.cutLengthMm)} mm${startMm > 0 ? `, ${n(startMm)} mm of it before the first end` : ''}. Last straight ${n(card.lastStraightMm)} mm.`,
      fontSize: 12,
      margin: [0, 0, 0, 6],
    },
    { svg: tubeSvg(card) },
    {
      table: { headerRows: 1, widths: ['auto', '*', '*', '*', '*', '*', '*'], body: [head, ...rows] },
      layout: 'lightHorizontalLines',
      margin: [0, 8, 0, 8],
    },
    {
      ul: [
        'Fed start first. Clockwise: looking the way the tube moves. All marks are drawn along the straight tube before the first bend.',
        `Radius ${n(card.radiusOverDiameter)} times the diameter: ${card.kink === 'low' ? 'kinks are unlikely' : card.kink}.`,
        'Galvanised tube gives off zinc fume when heated: strip it, outdoors, with a respirator. Only dry sand.',
        'Ends square, deburred, cleaned. Bend a scrap first and compare the angle.',
      ],
    },
  ];
  const blob = await makePdf({
    pageSize: 'A4',
    pageMargins: 36,
    info: { title: `${job}: ${name}` },
    content,
  });
  savePdf(blob, job, 'bend-card');
}
