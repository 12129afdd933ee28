import { loomSystems, wireStates, type Design, type Id, type WireItem } from '@torvek/core/document';
import type { ContinuityLine } from '@torvek/core/low-voltage';
import { parseQuantity } from '@torvek/core/quantity';
import Papa from 'papaparse';
import type { Rows } from '../../../parts/csv';

/** Columns of the file. */
type Column =
  | 'wire'
  | 'from'
  | 'pin'
  | 'to'
  | 'to pin'
  | 'part'
  | 'colour'
  | 'length, m'
  | 'fuse, A'
  | 'system'
  | 'state'
  | 'feeds';

/** Wires as a file that comes back in by `readWires`. */
export function wireRows({
  wires = {},
  ends = {},
  loads = {},
  parts,
}: Pick<Design, 'wires' | 'ends' | 'loads' | 'parts'>): Rows {
  const end = (id: Id | undefined) => (id === undefined ? '' : (ends[id]?.tag ?? ''));
  return Object.values(wires).map((wire): Record<Column, string | number> => ({
    wire: wire.tag,
    from: end(wire.from),
    pin: wire.fromPin ?? '',
    to: end(wire.to),
    'to pin': wire.toPin ?? '',
    part: wire.wire === undefined ? '' : (parts[wire.wire]?.number ?? ''),
    colour: wire.colour ?? '',
    'length, m': wire.lengthM ?? '',
    'fuse, A': wire.fuseA ?? '',
    system: wire.system ?? '',
    state: wire.state ?? '',
    feeds: (wire.carries ?? []).map((id) => loads[id]?.tag ?? '').join('; '),
  }));
}

/** What must be joined and what parted, to hang beside the bench. */
export const continuityRows = (lines: readonly ContinuityLine[]): Rows =>
  lines.map((line) => ({
    wire: line.tag,
    from: line.from,
    pin: line.fromPin ?? '',
    to: line.to,
    'to pin': line.toPin ?? '',
    colour: line.colour,
    'mm²': line.areaMm2 ?? '',
    'length, m': line.lengthM === null ? '' : Math.round(line.lengthM * 1000) / 1000,
    'apart from': line.apartFrom.join('; '),
  }));

export interface ReadWires {
  /** Put into the design when they are taken. */
  rows: { id: Id | null; tag: string; change: Partial<WireItem> }[];
  /** Each names its line and field. */
  problems: string[];
}

/**
 * Reads wires from a file: those whose name is there already are changed, others are new. What cannot be read is said by line and
 * field, and that line is left out; nothing else is.
 */
export function readWires(
  text: string,
  design: Pick<Design, 'wires' | 'ends' | 'loads' | 'parts'>,
): ReadWires {
  const { wires = {}, ends = {}, loads = {}, parts } = design;
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
  });
  const problems: string[] = [];
  const heads = parsed.meta.fields ?? [];
  const lacks = (['wire', 'from', 'to'] as const).filter((column) => !heads.includes(column));
  if (lacks.length > 0) return { rows: [], problems: [`The file has no column ${lacks.join(', ')}.`] };
  const byName = <T extends { tag: string }>(map: Readonly<Record<Id, T>>) =>
    new Map(Object.entries(map).map(([id, { tag }]) => [tag.trim().toLowerCase(), id]));
  const known = byName(wires);
  const places = byName(ends);
  const feeds = byName(loads);
  const wireParts = new Map(
    Object.entries(parts).flatMap(([key, part]) =>
      part.kind === 'wire' ? [[part.number.toLowerCase(), key]] : [],
    ),
  );
  const seen = new Set<string>();
  const rows: ReadWires['rows'] = [];
  parsed.data.forEach((row, i) => {
    const line = i + 2;
    const own: string[] = [];
    const cell = (column: Column) => (row[column.toLowerCase()] ?? '').trim();
    const wrong = (column: Column, why: string) => own.push(`Line ${line}, ${column}: ${why}.`);
    const tag = cell('wire');
    if (tag === '') wrong('wire', 'is empty');
    else if (seen.has(tag.toLowerCase())) wrong('wire', `${tag} stands twice`);
    seen.add(tag.toLowerCase());
    const change: Partial<WireItem> = {};
    const place = (column: 'from' | 'to') => {
      if (cell(column) === '') return;
      const id = places.get(cell(column).toLowerCase());
      if (id === undefined) wrong(column, `there is no end called ${cell(column)}`);
      else change[column] = id;
    };
    place('from');
    place('to');
    const number = (
      column: Column,
      field: 'fromPin' | 'toPin' | 'lengthM' | 'fuseA',
      unit: string,
      whole = false,
    ) => {
      const said = cell(column);
      if (said === '') return;
      const read = parseQuantity(said, unit);
      if (!read.ok) wrong(column, `${said} ${read.message}`);
      else if (!(read.value > 0) || (whole && !Number.isInteger(read.value)))
        wrong(column, `${said} must be a ${whole ? 'whole ' : ''}number above 0`);
      else change[field] = read.value;
    };
    number('pin', 'fromPin', '', true);
    number('to pin', 'toPin', '', true);
    number('length, m', 'lengthM', 'm');
    number('fuse, A', 'fuseA', 'A');
    const end = (field: 'from' | 'to', pin: number | undefined, column: 'pin' | 'to pin') => {
      const part = parts[ends[change[field] ?? '']?.connector ?? ''];
      if (pin !== undefined && part?.kind === 'connector' && pin > part.data.cavities)
        wrong(column, `${pin} is beyond the ${part.data.cavities} cavities of ${ends[change[field]!]!.tag}`);
    };
    end('from', change.fromPin, 'pin');
    end('to', change.toPin, 'to pin');
    if (cell('part') !== '') {
      const key = wireParts.get(cell('part').toLowerCase());
      if (key === undefined) wrong('part', `${cell('part')} is no wire that this job uses`);
      else change.wire = key;
    }
    if (cell('colour') !== '') change.colour = cell('colour').slice(0, 80);
    const oneOf = <T extends string>(column: 'system' | 'state', all: readonly T[]): T | undefined => {
      const said = cell(column);
      if (said === '') return undefined;
      const found = all.find((one) => one.toLowerCase() === said.toLowerCase());
      if (found === undefined) wrong(column, `${said} is none of ${all.join(', ')}`);
      return found;
    };
    const system = oneOf('system', loomSystems);
    if (system !== undefined) change.system = system;
    const state = oneOf('state', wireStates);
    if (state !== undefined) change.state = state;
    const named = cell('feeds')
      .split(';')
      .map((one) => one.trim())
      .filter((one) => one !== '');
    const unknown = named.find((one) => !feeds.has(one.toLowerCase()));
    if (unknown !== undefined) wrong('feeds', `there is no load called ${unknown}`);
    else if (named.length > 0) change.carries = named.map((one) => feeds.get(one.toLowerCase())!);
    problems.push(...own);
    if (own.length === 0) rows.push({ id: known.get(tag.toLowerCase()) ?? null, tag, change });
  });
  return { rows, problems };
}
