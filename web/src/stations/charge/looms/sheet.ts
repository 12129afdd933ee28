import type { ContinuityLine } from '@torvek/core/low-voltage';

/** The continuity sheet as PDF: every wire from pin to pin, with a box to tick. */
export async function printContinuity(job: string, lines: readonly ContinuityLine[]): Promise<void> {
  const { makePdf, savePdf } = await import('../../../parts/pdf');
  const head = ['wire', 'from', 'pin', 'to', 'pin', 'colour', 'mm²', 'm', 'parted from', 'joined', 'parted'];
  const said = (value: number | null) => (value === null ? '' : String(Math.round(value * 1000) / 1000));
  const blob = await makePdf({
    pageSize: 'A4',
    pageOrientation: 'landscape',
    pageMargins: 28,
    content: [
      { text: 'Continuity of the looms', fontSize: 16, bold: true },
      { text: job, color: '#555', margin: [0, 0, 0, 4] },
      {
        text: 'With nothing plugged in: below 1 Ω from pin to pin; no path to the neighbours that are named, and none to the chassis but through a ground.',
        margin: [0, 0, 0, 8],
      },
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: ['*', 'auto', 'auto', 'auto', 'auto', 'auto', 'auto', 'auto', '*', 32, 32],
          body: [
            head,
            ...lines.map((line) =>
              [
                line.tag,
                line.from,
                said(line.fromPin),
                line.to,
                said(line.toPin),
                line.colour,
                said(line.areaMm2),
                said(line.lengthM),
                line.apartFrom.join(', '),
                '☐',
                '☐',
              ].map((text) =>
                text === '☐'
                  ? { text: '', border: [true, true, true, true] as [boolean, boolean, boolean, boolean] }
                  : text,
              ),
            ),
          ],
        },
        fontSize: 8,
      },
      { text: 'Meter, date and name:', margin: [0, 14, 0, 0] },
    ],
  });
  savePdf(blob, job, 'continuity');
}
