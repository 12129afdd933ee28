import { download, fileName } from '../../parts/pdf';
import { csvOf, type Rows } from './tables';

/** Hands rows over as a file that spreadsheets open. */
export const saveCsv = (job: string, what: string, rows: Rows): void =>
  download(new Blob([csvOf(rows)], { type: 'text/csv;charset=utf-8' }), fileName(job, what, 'csv'));
