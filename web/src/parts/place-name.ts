import type { Design } from '@torvek/core/document';

/** A path of the design (`devices.device-1.minV`) with the tags of what its ids name. */
export function placeName(design: Design, path: string): string {
  const keys = path.split('.');
  const [map, id, ...rest] = keys;
  const holder = (design as unknown as Record<string, Record<string, { tag?: string }> | undefined>)[
    map ?? ''
  ];
  const tag = id === undefined ? undefined : holder?.[id]?.tag;
  return tag === undefined ? keys.join(' · ') : [tag, ...rest].join(' · ');
}

/** The path of a JSON pointer (RFC 6901). */
export const pathOfPointer = (pointer: string) =>
  pointer
    .split('/')
    .slice(1)
    .map((key) => key.replace(/~1/g, '/').replace(/~0/g, '~'))
    .join('.');

/** A value of the design as one short line. */
export function sayValue(value: unknown): string {
  if (value === undefined) return '—';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > 70 ? `${text.slice(0, 70)} …` : text;
}
