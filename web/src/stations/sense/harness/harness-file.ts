import type { SenseWireItem } from '@torvek/core/document';
import { parseQuantity } from '@torvek/core/quantity';
import Papa from 'papaparse';
import type { HarnessRow } from './harness';

export interface ReadHarness {
  /** What the file says of wires that are as the map has them, by id. */
  changes: { id: string; label: string; change: Partial<SenseWireItem> }[];
  /** Wires that end elsewhere than the map says: whoever built it is asked, nothing of them is taken. */
  miswired: string[];
  /** Wires of the map that the file does not have. */
  absent: string[];
  /** What cannot be read, by line and field. */
  problems: string[];
}

type Column = 'label' | 'from' | 'board' | 'pin' | 'colour' | 'length, m' | 'fuse, A';

/** Reads a sense harness as it was built from a file, wire by wire by its label, and holds it against the map. */
export function readHarness(text: string, rows: readonly HarnessRow[]): ReadHarness {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
  });
  const answer: ReadHarness = { changes: [], miswired: [], absent: [], problems: [] };
  const heads = parsed.meta.fields ?? [];
  const lacks = (['label', 'from', 'board', 'pin'] as const).filter((column) => !heads.includes(column));
  if (lacks.length > 0) return { ...answer, problems: [`The file has no column ${lacks.join(', ')}.`] };
  const byLabel = new Map(rows.map((row) => [row.label.toLowerCase(), row]));
  const seen = new Set<string>();
  parsed.data.forEach((line, i) => {
    const cell = (column: Column) => (line[column.toLowerCase()] ?? '').trim();
    const own: string[] = [];
    const wrong = (column: Column, why: string) => own.push(`Line ${i + 2}, ${column}: ${why}.`);
    const label = cell('label');
    const wire = byLabel.get(label.toLowerCase());
    if (wire === undefined) wrong('label', label === '' ? 'is empty' : `${label} is no wire of this map`);
    else if (seen.has(wire.id)) wrong('label', `${label} stands twice`);
    const change: Partial<SenseWireItem> = {};
    const number = (column: 'length, m' | 'fuse, A', field: 'lengthM' | 'fuseA', unit: string) => {
      if (cell(column) === '') return;
      const read = parseQuantity(cell(column), unit);
      if (!read.ok) wrong(column, `${cell(column)} ${read.message}`);
      else if (!(read.value > 0)) wrong(column, `${cell(column)} must be above 0`);
      else change[field] = read.value;
    };
    number('length, m', 'lengthM', 'm');
    number('fuse, A', 'fuseA', 'A');
    if (cell('colour') !== '') change.colour = cell('colour').slice(0, 80);
    answer.problems.push(...own);
    if (wire === undefined) return;
    seen.add(wire.id);
    if (own.length > 0) return;
    const differs = (
      [
        ['from', wire.from],
        ['board', wire.boardTag],
        ['pin', String(wire.pin)],
      ] as const
    ).filter(([column, is]) => cell(column).toLowerCase() !== is.toLowerCase());
    if (differs.length > 0)
      answer.miswired.push(
        `${wire.label}: ${differs
          .map(
            ([column, is]) =>
              `${column} ${cell(column) === '' ? 'missing' : cell(column)}, the map says ${is}`,
          )
          .join('; ')}.`,
      );
    else if (Object.keys(change).length > 0) answer.changes.push({ id: wire.id, label: wire.label, change });
  });
  answer.absent = rows.filter(({ id }) => !seen.has(id)).map(({ label }) => label);
  return answer;
}
