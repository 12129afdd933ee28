import { everyTagged, fieldAt, valueOf, type Design, type Reference } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';

/** A path of the design in words: the names of what its ids stand for, then the field (`Inverter · Works from`). */
export function placeName(design: Design, path: string): string {
  const found = fieldAt(path);
  if (found === null) return path.split('.').join(' · ');
  const keys = path.split('.');
  const names: string[] = [];
  let depth = 0;
  for (const field of found.way) {
    depth += 1;
    const last = field === found.field;
    if (field.inner === undefined || field.inner.kind === 'one') {
      // The name of the whole is left out where something inside it is meant.
      if (last || depth > 1) names.push(field.label);
      continue;
    }
    const item = keys[depth];
    depth += 1;
    if (item === undefined) names.push(field.label);
    else {
      const tag = (valueOf(design, keys.slice(0, depth).join('.')) as { tag?: string } | undefined)?.tag;
      names.push(tag ?? `${field.label} ${field.inner.kind === 'list' ? Number(item) + 1 : `· ${item}`}`);
    }
  }
  return names.join(' · ');
}

/** What a figure is of, in the words of the design; empty where there is only one. */
export function subjectName(design: Design, subject: string): string {
  const [id = '', ...rest] = subject.split('/');
  const all = everyTagged(design);
  const found = Object.hasOwn(all, id) ? all[id] : undefined;
  return found === undefined ? '' : [found.tag, ...rest].join(', ');
}

/** The path of a JSON pointer (RFC 6901). */
export const pathOfPointer = (pointer: string) =>
  pointer
    .split('/')
    .slice(1)
    .map((key) => key.replace(/~1/g, '/').replace(/~0/g, '~'))
    .join('.');

/** A value of a design as one short line: in the unit in which its field is shown, or by the name of what it names. */
export function sayValue(design: Design, path: string, value: unknown): string {
  if (value === undefined) return '—';
  const field = fieldAt(path)?.field;
  if (typeof value === 'number' && field?.unit !== undefined) {
    const { unit, scale } = field.shown ?? { unit: field.unit, scale: 1 };
    const shown = formatNumber(value / scale, 6);
    return unit === '' ? shown : `${shown} ${unit}`;
  }
  const named = typeof value === 'string' ? nameOf(design, field?.refersTo, value) : undefined;
  if (named !== undefined) return named;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > 70 ? `${text.slice(0, 70)} …` : text;
}

const nameOf = (design: Design, to: Reference | undefined, key: string): string | undefined =>
  typeof to === 'object' ? design.parts[key]?.label : to === undefined ? undefined : design[to]?.[key]?.tag;
