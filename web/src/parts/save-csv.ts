import { csvOf, type Rows } from './csv';
import { download, fileName } from './pdf';

/** Hands rows over as a file that spreadsheets open. */
export const saveCsv = (job: string, what: string, rows: Rows): void =>
  download(new Blob([csvOf(rows)], { type: 'text/csv;charset=utf-8' }), fileName(job, what, 'csv'));

/** Hands something over as JSON. */
export const saveJson = (job: string, what: string, value: unknown): void =>
  download(
    new Blob([`${JSON.stringify(value, null, 2)}\n`], { type: 'application/json' }),
    fileName(job, what, 'json'),
  );
