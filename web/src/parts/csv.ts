import { unparse } from 'papaparse';

export type Rows = Record<string, string | number>[];

/** As a file that spreadsheets open: UTF-8 with its mark, so that ° and names are read as they are. */
export const csvOf = (rows: Rows): string =>
  `\uFEFF${unparse(rows, { newline: '\r\n', escapeFormulae: true })}\r\n`;
