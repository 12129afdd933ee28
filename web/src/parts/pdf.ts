import boldUrl from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import fontUrl from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

/** The type for paper, by the name it has in a PDF: it has Ω, µ, → and ≤, which that of the screen lacks. */
export const pdfFamily = 'Paper';

/** Makes a PDF in the browser, in the type for paper; the library is loaded when the first one is asked for. */
export async function makePdf(document: TDocumentDefinitions): Promise<Blob> {
  const [{ default: pdfMake }, regular, bold] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    fetch(fontUrl).then((answer) => answer.arrayBuffer()),
    fetch(boldUrl).then((answer) => answer.arrayBuffer()),
  ]);
  pdfMake.addVirtualFileSystem({
    'regular.ttf': { data: base64(regular), encoding: 'base64' },
    'bold.ttf': { data: base64(bold), encoding: 'base64' },
  } as never);
  pdfMake.addFonts({
    [pdfFamily]: {
      normal: 'regular.ttf',
      bold: 'bold.ttf',
      italics: 'regular.ttf',
      bolditalics: 'bold.ttf',
    },
  });
  return pdfMake.createPdf({ defaultStyle: { font: pdfFamily, fontSize: 9 }, ...document }).getBlob();
}

/** A file name of a job’s name and what it is. */
export const fileName = (job: string, what: string, ending: string) =>
  `${job.replace(/[^\w-]+/g, '-').replace(/^-+|-+$/g, '') || 'job'}-${what}.${ending}`;

export const savePdf = (blob: Blob, job: string, what: string) => download(blob, fileName(job, what, 'pdf'));

function base64(bytes: ArrayBuffer): string {
  let text = '';
  for (const byte of new Uint8Array(bytes)) text += String.fromCharCode(byte);
  return btoa(text);
}

export function download(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
