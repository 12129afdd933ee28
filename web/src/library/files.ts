import { checkPart } from '@torvek/core/library';
import { dataFrom, fieldValue, partFields, partKinds, type Part, type PartKind } from '@torvek/core/parts';
import { parse, unparse } from 'papaparse';
import { curveText, readCurve } from './curve-text';

export const partsFormat = 'torvek-parts';
export const partsFormatVersion = 1;

/** Parts as one JSON text. */
export const partsJson = (parts: readonly Part[]): string =>
  `${JSON.stringify({ format: partsFormat, formatVersion: partsFormatVersion, parts }, null, 2)}\n`;

const words = ['kind', 'id', 'revision', 'make', 'number', 'label', 'source'] as const;

/** What a spreadsheet would compute, or what looks as if it had been kept from that: an apostrophe goes before it. */
const formula = /^['=+\-@\t\r]/;
const withoutApostrophe = (text: string) =>
  text.startsWith("'") && formula.test(text.slice(1)) ? text.slice(1) : text;

/** Parts of one kind as CSV: a line each; a curve is its points, parted by semicolons. */
export function partsCsv(kind: PartKind, parts: readonly Part[]): string {
  const fields = partFields[kind];
  const rows = parts
    .filter((part) => part.kind === kind)
    .map((part) => [
      ...words.map((name) => part[name] ?? ''),
      ...fields.map((field) => {
        const value = fieldValue(part.data, field.name);
        if (value === undefined) return '';
        return field.kind === 'table' ? curveText(value as [number, number][]).replaceAll('\n', '; ') : value;
      }),
    ]);
  return unparse(
    { fields: [...words, ...fields.map(({ name }) => name)], data: rows },
    { newline: '\n', escapeFormulae: formula },
  );
}

export type ReadParts = { ok: true; parts: Part[] } | { ok: false; problems: string[] };

const mostProblems = 12;

/** Reads parts of a JSON or CSV text; each problem names its part or line, and the field. */
export function readParts(text: string): ReadParts {
  const trimmed = text.replace(/^\uFEFF/, '').trim();
  if (trimmed === '') return { ok: false, problems: ['The file is empty.'] };
  return /^[[{]/.test(trimmed) ? readJson(trimmed) : readCsv(trimmed);
}

function readJson(text: string): ReadParts {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { ok: false, problems: ['The file begins like JSON, but cannot be read as such.'] };
  }
  const { format, formatVersion, parts } = value as {
    format?: unknown;
    formatVersion?: unknown;
    parts?: unknown;
  };
  if (format !== partsFormat || !Array.isArray(parts))
    return { ok: false, problems: [`The file is no list of parts: its format is not “${partsFormat}”.`] };
  if (typeof formatVersion !== 'number' || formatVersion > partsFormatVersion)
    return {
      ok: false,
      problems: [`The file is of version ${String(formatVersion)}; this Torvek reads ${partsFormatVersion}.`],
    };
  return checkAll(parts.map((part, i) => ({ part: part as unknown, where: `Part ${i + 1}` })));
}

function readCsv(text: string): ReadParts {
  const { data, meta } = parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: 'greedy',
    transform: withoutApostrophe,
  });
  const missing = ['kind', 'id', 'make', 'number', 'label'].filter(
    (name) => !(meta.fields ?? []).includes(name),
  );
  if (missing.length > 0)
    return {
      ok: false,
      problems: [`The first line has no column ${missing.map((one) => `“${one}”`).join(', ')}.`],
    };
  const problems: string[] = [];
  const rows = data.map((row, i) => {
    const where = `Line ${i + 2}`;
    return { where, part: partOf(row, (problem) => problems.push(`${where}: ${problem}`)) };
  });
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, mostProblems) };
  return checkAll(rows);
}

/** What a line says, as far as it can be read; the door judges the rest. */
function partOf(row: Record<string, string>, problem: (text: string) => void): unknown {
  const cell = (name: string) => (row[name] ?? '').trim();
  const kind = cell('kind') as PartKind;
  if (!partKinds.includes(kind)) {
    problem(`“${cell('kind')}” is no kind of part: ${partKinds.join(', ')}`);
    return null;
  }
  const values = new Map<string, unknown>();
  for (const field of partFields[kind]) {
    const text = cell(field.name);
    if (text === '') continue;
    if (field.kind === 'table') {
      const curve = readCurve(text.split(';').join('\n'));
      if (curve.ok) values.set(field.name, curve.rows);
      else problem(`${field.name}: ${curve.message}`);
    } else if (field.kind === 'flag') {
      if (text !== 'true' && text !== 'false') problem(`${field.name}: true or false, not “${text}”`);
      values.set(field.name, text === 'true');
    } else if (field.kind === 'number' || typeof field.choices[0] === 'number') {
      const value = Number(text.replace(',', '.'));
      if (Number.isNaN(value)) problem(`${field.name}: “${text}” is not a number`);
      values.set(field.name, value);
    } else values.set(field.name, text);
  }
  const source = cell('source');
  return {
    kind,
    id: cell('id'),
    revision: Number(cell('revision') || 1),
    make: cell('make'),
    number: cell('number'),
    label: cell('label'),
    ...(source !== '' && { source }),
    data: dataFrom(values),
  };
}

function checkAll(rows: { part: unknown; where: string }[]): ReadParts {
  if (rows.length === 0) return { ok: false, problems: ['There is no part in the file.'] };
  const problems: string[] = [];
  const parts: Part[] = [];
  for (const { part, where } of rows) {
    const checked = checkPart(part);
    if (checked.ok) parts.push(checked.part);
    else
      problems.push(
        ...checked.issues.map(({ path, message }) => `${where}: ${path.replace(/^data\./, '')} ${message}.`),
      );
  }
  return problems.length === 0
    ? { ok: true, parts }
    : { ok: false, problems: problems.slice(0, mostProblems) };
}
