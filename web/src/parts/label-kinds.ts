import type { Design, Id } from '@torvek/core/document';
import { formatQuantity } from '@torvek/core/quantity';
import type { Label } from './labels';

/** What labels are printed of, beside modules: theirs are by serial, in Intake. */
export const labelKinds = ['cables', 'fuses', 'contactors', 'boxes'] as const;
export type LabelKind = (typeof labelKinds)[number];

type Slices = Pick<Design, 'strings' | 'circuits' | 'boxes' | 'parts'>;

/** A label for each thing of a kind: its name, what it is, and where its code leads. */
export function labelsOf(kind: LabelKind, design: Slices, highestV: number | null): Label[] {
  const { strings, circuits, boxes, parts } = design;
  const part = (key: string | undefined) => (key === undefined ? null : (parts[key]?.label ?? key));
  const said = (...lines: (string | null)[]) =>
    lines.filter((line): line is string => line !== null && line !== '');
  const upTo = highestV === null ? null : `up to ${formatQuantity(highestV, 'V')} DC`;
  const circuit = (id: Id) => `protect?circuit=${id}`;
  switch (kind) {
    case 'cables':
      return Object.entries(circuits).flatMap(([id, { tag, cable, lengthM }]) =>
        cable === undefined
          ? []
          : ['+', '−'].map((pole) => ({
              title: `${tag} ${pole}`,
              lines: said(part(cable), lengthM === undefined ? null : formatQuantity(lengthM, 'm'), upTo),
              path: circuit(id),
            })),
      );
    case 'fuses':
      return [
        ...Object.entries(circuits).flatMap(([id, { tag, fuse }]) =>
          fuse === undefined
            ? []
            : [{ title: `Fuse ${tag}`, lines: said(part(fuse), upTo), path: circuit(id) }],
        ),
        ...Object.values(strings).flatMap(({ tag, fuse }) =>
          fuse === undefined
            ? []
            : [{ title: `Fuse ${tag}`, lines: said(part(fuse), upTo), path: 'protect?panel=strings' }],
        ),
      ];
    case 'contactors':
      return [
        ...Object.entries(circuits).flatMap(([id, { tag, contactor, poles = 'both' }]) =>
          contactor === undefined
            ? []
            : (poles === 'both' ? ['+', '−'] : ['']).map((pole) => ({
                title: `${tag} ${pole}`.trim(),
                lines: said(part(contactor), upTo),
                path: circuit(id),
              })),
        ),
        ...Object.values(strings).flatMap(({ tag, contactor }) =>
          contactor === undefined
            ? []
            : [
                {
                  title: `Contactor ${tag}`,
                  lines: said(part(contactor), upTo),
                  path: 'protect?panel=strings',
                },
              ],
        ),
      ];
    case 'boxes':
      return Object.values(boxes).map(({ tag }) => ({
        title: tag,
        lines: said('High voltage', upTo),
        path: 'pack?panel=arrange',
      }));
  }
}

/**
 * Type in which a text fits a width, at most `mostPt`; roughly half an em a character. On a sheet its lines may break between words;
 * on a roll, whose height is fixed, it stays one line.
 */
export const fittingPt = (text: string, widthPt: number, mostPt: number, oneLine: boolean): number => {
  const pieces = oneLine ? [text] : text.split(/\s+/);
  const longest = Math.max(1, ...pieces.map(({ length }) => length));
  return Math.min(mostPt, widthPt / (longest * 0.56));
};
