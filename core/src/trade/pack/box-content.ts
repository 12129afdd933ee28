import type { Gap } from '../../ground/figure';
import type { BoxItem, Id } from '../../model/document';
import type { ModuleData } from '../../model/parts';
import type { Reader } from '../../model/step';
import { boxContents, type BoxContent } from './arrangement';

/** A box with what stands in it, for the steps that judge it. */
export interface FilledBox {
  box: BoxItem;
  content: BoxContent;
  /** Of its modules, in the order of their slots. */
  data: ModuleData[];
  /** Box and modules. */
  fullKg: number;
  noMass: Gap[];
  /** Sizes that are not given. */
  noSize: Gap[];
  /** Why its modules have no slots. */
  noSlots: Gap[];
  /** A gap where a field of the box is not given. */
  need(value: unknown, field: string, label: string): Gap[];
}

export function filledBox(id: Id, read: Reader): FilledBox {
  const box = read.at('boxes', id)!;
  const modules = read.at('modules');
  const parts = read.at('parts');
  const at = `boxes.${id}`;
  const content = boxContents({
    boxes: { [id]: box },
    modules,
    parts,
    strings: read.at('strings'),
    pack: read.at('pack'),
  }).get(id)!;
  const data = content.modules.flatMap((module) => {
    const part = parts[modules[module]?.part ?? ''];
    return part?.kind === 'module' ? [part.data] : [];
  });
  const need = (value: unknown, field: string, label: string): Gap[] =>
    value === undefined
      ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${box.tag}` }]
      : [];
  const noSize = [
    ...need(box.lengthM, 'lengthM', 'length'),
    ...need(box.widthM, 'widthM', 'width'),
    ...need(box.heightM, 'heightM', 'height'),
  ];
  const unheld: Gap = { kind: 'invalid', path: at, label: box.tag, message: 'does not hold its modules' };
  return {
    box,
    content,
    data,
    fullKg: (box.emptyKg ?? 0) + data.reduce((sum, { massKg }) => sum + massKg, 0),
    noMass: need(box.emptyKg, 'emptyKg', 'empty mass'),
    noSize,
    noSlots: data.length === 0 || content.fit !== null ? [] : noSize.length > 0 ? noSize : [unheld],
    need,
  };
}
