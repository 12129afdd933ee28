import type { Sheet, SheetBlock } from '@torvek/core/sheets';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { cellPadPt, fitTable, lines, rulePt, splitTable, type TableText } from './fit';
import { papers, type Paper } from './paper';
import { isPaperType, paperMeasure, paperType, type Measure } from './type';

/** What stands on every page beside the sheet itself. */
export interface Imprint {
  job: string;
  /** Version, day and where the record stood, in one line. */
  stand: string;
  /** The head of the record, signed: held against the chain later. */
  head: string;
}

const marginPt = { x: 32, top: 54, bottom: 44 };
const textPt = 9;
const ink = { soft: '#555555', line: '#999999', warn: '#8a4300' };

/** Portrait where every table fits it; otherwise the sheet lies on its side. */
export function orientationOf(sheet: Sheet, paper: Paper, measure: Measure): 'portrait' | 'landscape' {
  const room = papers[paper].width - 2 * marginPt.x;
  const fits = (block: SheetBlock) =>
    block.kind !== 'table' || fitTable(block, room, measure, [8.5, 8, 7.5]) !== null;
  return sheet.blocks.every(fits) ? 'portrait' : 'landscape';
}

/** The tables of a sheet as they are set, for whoever checks that nothing is cut. */
export function tablesOf(
  sheet: Sheet,
  paper: Paper,
  measure: Measure,
): { table: TableText; roomPt: number }[] {
  const orientation = orientationOf(sheet, paper, measure);
  const roomPt = (orientation === 'portrait' ? papers[paper].width : papers[paper].height) - 2 * marginPt.x;
  return sheet.blocks.flatMap((block) =>
    block.kind !== 'table'
      ? []
      : (fitTable(block, roomPt, measure) === null ? splitTable(block, roomPt, measure) : [block]).map(
          (table) => ({ table, roomPt }),
        ),
  );
}

/** A sheet as pages. */
export function documentOf(sheet: Sheet, { job, stand, head }: Imprint, paper: Paper): TDocumentDefinitions {
  const measure = paperMeasure();
  const orientation = orientationOf(sheet, paper, measure);
  const { width, height } = papers[paper];
  const roomPt = (orientation === 'portrait' ? width : height) - 2 * marginPt.x;
  const wrapped = (text: string, sizePt = textPt, bold = false) => lines(text, roomPt, sizePt, measure, bold);
  return {
    pageSize: { width, height },
    pageOrientation: orientation,
    pageMargins: [marginPt.x, marginPt.top, marginPt.x, marginPt.bottom],
    info: { title: `${job}: ${sheet.title}` },
    defaultStyle: { font: 'Paper', fontSize: textPt },
    header: {
      margin: [marginPt.x, 22, marginPt.x, 0],
      columns: [
        { text: job, bold: true, fontSize: 10 },
        { text: sheet.title, alignment: 'right', fontSize: 10 },
      ],
    },
    footer: (page, pages) => ({
      margin: [marginPt.x, 12, marginPt.x, 0],
      columns: [
        { text: stand, fontSize: 7, color: ink.soft },
        { text: `page ${page} of ${pages}`, alignment: 'right', fontSize: 8, width: 70 },
      ],
    }),
    content: [
      { ...stacked(wrapped(sheet.title, 16, true)), bold: true, fontSize: 16 },
      { ...stacked(wrapped(sheet.about)), color: ink.soft, margin: [0, 1, 0, 8] },
      ...sheet.blocks.flatMap((block, i) => {
        const next = sheet.blocks[i + 1];
        const before = sheet.blocks[i - 1];
        // Above a table it is one of its heads: it is repeated with them, and never stands alone at the foot of a page.
        if (block.kind === 'heading' && next?.kind === 'table') return [];
        const heading = block.kind === 'table' && before?.kind === 'heading' ? before.text : null;
        return contentOf(block, roomPt, measure, heading);
      }),
      {
        unbreakable: true,
        margin: [0, 10, 0, 0],
        columns: [
          { qr: head, fit: 74, width: 84, eccLevel: 'L' },
          {
            fontSize: 7,
            color: ink.soft,
            stack: [
              ...stacked(
                lines(
                  'Where the record stood when this was printed; Book holds it against the chain.',
                  roomPt - 96,
                  7,
                  measure,
                ),
              ).stack,
              // Broken between its words alone: it is read back so.
              ...stacked(lines(head, roomPt - 96, 7, measure)).stack,
            ],
          },
        ],
      },
    ],
  };
}

/** Each line by itself: the printer that sets them breaks none. */
const stacked = (all: readonly string[], style: object = {}) => ({
  stack: all.map((text) => ({ text: text === '' ? ' ' : text, noWrap: true, ...style })),
});

const tick = (sizePt: number): Content => ({
  canvas: [{ type: 'rect', x: 0, y: 1.5, w: sizePt, h: sizePt, lineWidth: 0.8 }],
});

function contentOf(block: SheetBlock, roomPt: number, measure: Measure, heading: string | null): Content[] {
  const wrapped = (text: string, room = roomPt, sizePt = textPt, bold = false) =>
    lines(text, room, sizePt, measure, bold);
  switch (block.kind) {
    case 'break':
      return [{ text: '', pageBreak: 'after' }];
    case 'heading':
      return [
        {
          ...stacked(wrapped(block.text, roomPt, 12, true)),
          bold: true,
          fontSize: 12,
          margin: [0, 9, 0, 3],
          headlineLevel: 1,
        },
      ];
    case 'text': {
      const bold = block.tone === 'warn';
      return [
        {
          ...stacked(wrapped(block.text, roomPt - (bold ? 8 : 0), textPt, bold)),
          bold,
          margin: [bold ? 8 : 0, 2, 0, 5],
          ...(block.tone !== undefined && { color: bold ? ink.warn : ink.soft }),
        },
      ];
    }
    case 'list':
      return [
        {
          table: {
            widths: [9, roomPt - 9 - 12],
            dontBreakRows: true,
            body: block.items.map((item): TableCell[] => [
              block.ticks === true ? tick(7) : { text: '·', alignment: 'right' },
              stacked(wrapped(item, roomPt - 9 - 12)),
            ]),
          },
          layout: {
            hLineWidth: () => 0,
            vLineWidth: () => 0,
            paddingTop: () => 1.2,
            paddingBottom: () => 1.2,
          },
          margin: [0, 0, 0, 5],
          ...(block.tone === 'warn' && { color: ink.warn }),
        },
      ];
    case 'facts':
      return [
        {
          table: {
            widths: [110, roomPt - 110 - 14],
            body: block.rows.map(([label, value]): TableCell[] => [
              { ...stacked(wrapped(label, 110)), color: ink.soft },
              stacked(wrapped(value, roomPt - 110 - 14)),
            ]),
          },
          layout: {
            hLineWidth: () => 0,
            vLineWidth: () => 0,
            paddingTop: () => 0.6,
            paddingBottom: () => 0.6,
          },
          margin: [0, 0, 0, 6],
        },
      ];
    case 'hand':
      return [
        {
          table: {
            widths: block.labels.map(() => roomPt / block.labels.length - 12),
            heights: 26,
            body: [
              block.labels.map((label): TableCell => ({
                ...stacked(wrapped(label, roomPt / block.labels.length - 14, 7)),
                fontSize: 7,
                color: ink.soft,
              })),
            ],
          },
          margin: [0, 6, 0, 6],
          unbreakable: true,
        },
      ];
    case 'table':
      return (fitTable(block, roomPt, measure) === null ? splitTable(block, roomPt, measure) : [block]).map(
        (table) => tableOf(table, roomPt, measure, heading),
      );
  }
}

function tableOf(table: TableText, roomPt: number, measure: Measure, heading: string | null): Content {
  const fitted = fitTable(table, roomPt, measure);
  // A word wider than the page: it is broken rather than lost, and the rest is set as it comes.
  const { sizePt, widthsPt } = fitted ?? {
    sizePt: 6.5,
    widthsPt: table.columns.map(() => roomPt / table.columns.length),
  };
  const cell = (text: string, i: number, bold = false): TableCell => {
    const { align, handMm } = table.columns[i]!;
    const inner = widthsPt[i]! - 2 * cellPadPt;
    const hand = handMm !== undefined && !bold;
    return {
      ...(fitted === null
        ? { text: text === '' ? ' ' : text }
        : stacked(lines(text, inner, sizePt, measure, bold))),
      bold,
      ...(align !== undefined && { alignment: align }),
      border: [hand, false, hand, true],
    };
  };
  const head: TableCell[][] =
    heading === null
      ? []
      : [
          [
            {
              ...stacked(lines(heading, roomPt - 12, 12, measure, true)),
              bold: true,
              fontSize: 12,
              colSpan: table.columns.length,
              border: [false, false, false, false],
              margin: [-cellPadPt, 4, 0, 2],
            },
            ...table.columns.slice(1).map(() => ''),
          ],
        ];
  return {
    fontSize: sizePt,
    margin: [0, 0, 0, 7],
    table: {
      headerRows: head.length + 1,
      dontBreakRows: true,
      keepWithHeaderRows: 1,
      widths: widthsPt.map((one) => one - 2 * cellPadPt),
      body: [
        ...head,
        table.columns.map(({ title }, i) => cell(title, i, true)),
        ...table.rows.map((row) => table.columns.map((_, i) => cell(row[i] ?? '', i))),
      ],
    },
    layout: {
      hLineWidth: (i) => (i <= head.length ? 0 : i === head.length + 1 ? 0.9 : 0.4),
      vLineWidth: () => rulePt,
      hLineColor: () => ink.line,
      vLineColor: () => ink.line,
      paddingLeft: () => cellPadPt,
      paddingRight: () => cellPadPt,
      paddingTop: () => (table.columns.some(({ handMm }) => handMm !== undefined) ? 3.2 : 1.6),
      paddingBottom: () => (table.columns.some(({ handMm }) => handMm !== undefined) ? 3.2 : 1.6),
    },
  };
}

/** A sheet as a PDF. */
export async function printSheet({
  sheet,
  imprint,
  paper,
}: {
  sheet: Sheet;
  imprint: Imprint;
  paper: Paper;
}): Promise<Uint8Array> {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy(isPaperType);
  pdfmake.setFonts({
    Paper: {
      normal: paperType.normal,
      bold: paperType.bold,
      italics: paperType.normal,
      bolditalics: paperType.bold,
    },
  });
  return new Uint8Array(await pdfmake.createPdf(documentOf(sheet, imprint, paper)).getBuffer());
}
