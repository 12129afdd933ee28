import { formatNumber } from '@torvek/core/quantity';
import type { BendCardResult } from '@torvek/core/routing';
import type { Content } from 'pdfmake/interfaces';
import { bestTemplate, measure, printable, sheetsOf, sheetSvg } from './templates';
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

const pointsPerMm = 72 / 25.4;

/** Every bend as large as it is, over as many sheets as it takes; they print on A4 and on US letter alike. */
export async function printTemplates(
  job: string,
  name: string,
  mirrored: boolean,
  card: BendCardResult,
  outerMm: number,
): Promise<void> {
  const { makePdf, savePdf } = await import('../../../parts/pdf');
  const n = (value: number) => formatNumber(value, 4);
  const content = card.bends.flatMap(({ number }, i): Content[] => {
    const template = bestTemplate(card, i, outerMm);
    const sheets = sheetsOf(template);
    return sheets.flatMap((sheet, k): Content[] => [
      {
        text: `${job}, ${name}${mirrored ? ', mirrored twin' : ''}: bend ${number}, ${n(template.angleDeg)}° at ${n(template.radiusMm)} mm${
          sheets.length > 1
            ? `; sheet ${k + 1} of ${sheets.length}, row ${sheet.row + 1}, column ${sheet.column + 1}: lay crosses on crosses`
            : ''
        }. Print at 100 %: the measure has 100 mm.`,
        fontSize: 8,
        margin: [0, 0, 0, 4],
        ...((i > 0 || k > 0) && { pageBreak: 'before' as const }),
      },
      { svg: measure.svg, width: measure.widthMm * pointsPerMm, height: measure.heightMm * pointsPerMm },
      {
        svg: sheetSvg(template, sheet),
        width: printable.widthMm * pointsPerMm,
        height: printable.heightMm * pointsPerMm,
      },
    ]);
  });
  const blob = await makePdf({
    pageSize: 'A4',
    pageMargins: [10 * pointsPerMm, 8 * pointsPerMm, 10 * pointsPerMm, 8 * pointsPerMm],
    info: { title: `${job}: ${name}, templates` },
    content,
  });
  savePdf(blob, job, 'bend-templates');
}
