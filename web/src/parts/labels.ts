import type { Content } from 'pdfmake/interfaces';
import { api } from '../api/client';
import { fittingPt } from './label-kinds';

/** What stands on a label, and where its code leads in this job: a path below the job, with its query. */
export interface Label {
  title: string;
  lines: readonly string[];
  path: string;
  /** The last line; absent: what is due on everything of high voltage. */
  foot?: string;
}

/** Labels on a sheet, or one after another on a roll: how many across, and how large the code and the type are. */
export const labelSheets: readonly LabelSheet[] = [
  { id: 'large', text: 'A4, 2 across', across: 2, codePt: 92, titlePt: 20, linePt: 10 },
  { id: 'middle', text: 'A4, 3 across', across: 3, codePt: 62, titlePt: 14, linePt: 8 },
  { id: 'small', text: 'A4, 5 across', across: 5, codePt: 40, titlePt: 9, linePt: 6 },
  { id: 'roll-89', text: 'roll 89 × 36 mm', across: 1, rollMm: [89, 36], codePt: 80, titlePt: 18, linePt: 9 },
  { id: 'roll-62', text: 'roll 62 × 29 mm', across: 1, rollMm: [62, 29], codePt: 62, titlePt: 14, linePt: 7 },
  {
    id: 'roll-50',
    text: 'roll 50 × 15 mm',
    across: 1,
    rollMm: [50, 15],
    codePt: 34,
    titlePt: 11,
    linePt: 5.5,
  },
];
export interface LabelSheet {
  id: string;
  text: string;
  across: number;
  codePt: number;
  titlePt: number;
  linePt: number;
  /** A printer of single labels: width and height of one. */
  rollMm?: readonly [widthMm: number, heightMm: number];
}

const ptOf = (mm: number) => (mm * 72) / 25.4;
/** Room for the words of one label, pt. */
export const wordsPt = ({ across, codePt, rollMm }: LabelSheet): number =>
  (rollMm === undefined ? (595 - 48) / across - 16 : ptOf(rollMm[0]) - 10) - codePt - 8;

/** Rows of a sheet: the last one is filled up with nothing. */
export function inRows<T>(cells: readonly T[], across: number, empty: T): T[][] {
  return Array.from({ length: Math.ceil(cells.length / across) }, (_, i) =>
    Array.from({ length: across }, (_none, j) => cells[i * across + j] ?? empty),
  );
}

/** Where a code leads: the address that the shop set, else that of the page. */
export const addressOf = (base: string, job: string, path: string): string => `${base}/jobs/${job}/${path}`;

/**
 * A sheet of labels as PDF, A4, each with a code that leads to what it is of; at its foot where the record stood when it was printed.
 *
 * @param what one word for the name of the file
 */
export async function printLabels(
  job: { id: string; name: string },
  what: string,
  labels: readonly Label[],
  sheet: LabelSheet = labelSheets[1]!,
): Promise<void> {
  const { across, codePt, titlePt, linePt, rollMm } = sheet;
  const roomPt = wordsPt(sheet);
  const [{ makePdf, savePdf }, { default: QrCode }, anchor, { labelAddress }] = await Promise.all([
    import('./pdf'),
    import('qrcode'),
    api.get<{ text: string; n: number; key: string }>(`/jobs/${job.id}/anchor`),
    api.get<{ labelAddress: string }>('/rules'),
  ]);
  const cells = await Promise.all(
    labels.map(async ({ title, lines, path, foot = 'HV: see the record before use' }): Promise<Content> => {
      const code = await QrCode.toString(addressOf(labelAddress || location.origin, job.id, path), {
        type: 'svg',
        margin: 0,
      });
      return {
        columns: [
          { svg: code, width: codePt },
          {
            stack: [
              { text: title, bold: true, fontSize: fittingPt(title, roomPt, titlePt, rollMm !== undefined) },
              ...lines.map((text) => ({
                text,
                fontSize: fittingPt(text, roomPt, linePt, rollMm !== undefined),
              })),
              ...(foot === ''
                ? []
                : [{ text: foot, fontSize: fittingPt(foot, roomPt, linePt - 1, rollMm !== undefined) }]),
            ],
          },
        ],
        columnGap: 8,
        margin: rollMm === undefined ? [4, 6, 4, 6] : [0, 0, 0, 0],
      };
    }),
  );
  if (rollMm !== undefined) {
    const roll = await makePdf({
      pageSize: { width: ptOf(rollMm[0]), height: ptOf(rollMm[1]) },
      pageMargins: [5, 4, 5, 2],
      info: { title: `${job.name}: labels, ${what}` },
      content: cells.map((cell, i) => ({ stack: [cell], ...(i > 0 && { pageBreak: 'before' as const }) })),
    });
    savePdf(roll, job.name, 'labels');
    return;
  }
  const blob = await makePdf({
    pageSize: 'A4',
    pageMargins: 24,
    info: { title: `${job.name}: labels, ${what}` },
    content: [
      {
        table: {
          widths: Array.from({ length: across }, () => '*'),
          body: inRows<Content>(cells, across, { text: '' }),
          dontBreakRows: true,
        },
      },
      {
        unbreakable: true,
        columns: [
          { svg: await QrCode.toString(anchor.text, { type: 'svg', margin: 0 }), width: 90 },
          {
            stack: [
              { text: `Where the record of “${job.name}” stood: link ${anchor.n}`, bold: true, fontSize: 9 },
              {
                text: 'Keep this part of the sheet. Book and “npm run verify -- --paper” hold it against the chain: a record that was rewritten since shows.',
                fontSize: 8,
              },
              { text: `Key of the shop: ${anchor.key}`, fontSize: 8 },
              { text: anchor.text, fontSize: 6 },
            ],
            width: '*',
          },
        ],
        columnGap: 10,
        margin: [4, 14, 4, 0],
      },
    ],
  });
  savePdf(blob, job.name, 'labels');
}
