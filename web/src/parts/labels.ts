import type { Content } from 'pdfmake/interfaces';
import { api } from '../api/client';

/** What stands on a label, and where its code leads in this job: a path below the job, with its query. */
export interface Label {
  title: string;
  lines: readonly string[];
  path: string;
  /** The last line; absent: what is due on everything of high voltage. */
  foot?: string;
}

/** Labels on a sheet: how many across, and how large the code and the type are. */
export const labelSheets = [
  { id: 'large', text: '2 across', across: 2, codePt: 92, titlePt: 20, linePt: 10 },
  { id: 'middle', text: '3 across', across: 3, codePt: 62, titlePt: 14, linePt: 8 },
  { id: 'small', text: '5 across', across: 5, codePt: 40, titlePt: 9, linePt: 6 },
] as const;
export type LabelSheet = (typeof labelSheets)[number];

/** Rows of a sheet: the last one is filled up with nothing. */
export function inRows<T>(cells: readonly T[], across: number, empty: T): T[][] {
  return Array.from({ length: Math.ceil(cells.length / across) }, (_, i) =>
    Array.from({ length: across }, (_none, j) => cells[i * across + j] ?? empty),
  );
}

/**
 * A sheet of labels as PDF, A4, each with a code that leads to what it is of; at its foot where the record stood when it was printed.
 *
 * @param what one word for the name of the file
 */
export async function printLabels(
  job: { id: string; name: string },
  what: string,
  labels: readonly Label[],
  { across, codePt, titlePt, linePt }: LabelSheet = labelSheets[1],
): Promise<void> {
  const [{ makePdf, savePdf }, { default: QrCode }, anchor] = await Promise.all([
    import('./pdf'),
    import('qrcode'),
    api.get<{ text: string; n: number; key: string }>(`/jobs/${job.id}/anchor`),
  ]);
  const cells = await Promise.all(
    labels.map(async ({ title, lines, path, foot = 'HV: see the record before use' }): Promise<Content> => {
      const code = await QrCode.toString(`${location.origin}/jobs/${job.id}/${path}`, {
        type: 'svg',
        margin: 0,
      });
      return {
        columns: [
          { svg: code, width: codePt },
          {
            stack: [
              { text: title, bold: true, fontSize: titlePt },
              ...lines.map((text) => ({ text, fontSize: linePt })),
              ...(foot === '' ? [] : [{ text: foot, fontSize: linePt - 1 }]),
            ],
          },
        ],
        columnGap: 8,
        margin: [4, 6, 4, 6],
      };
    }),
  );
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
