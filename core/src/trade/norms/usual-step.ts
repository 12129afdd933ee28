import { rulesByStation } from './by-station';
import { numberProblem } from '../../ground/shape';
import type { CheckValue, Rule } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { designFields, thingOfPack, type Fields } from '../../model/document';
import { fieldValue, partFields, usualOfPart, type Part } from '../../model/parts';
import { judge, type StepDefinition } from '../../model/step';

const ruleOf = rulesByStation(
  'unusual',
  'mend',
  'A value is far from anything usual',
  'Most often it was typed in another unit, or with a digit too many: what follows from it looks right and is not.',
  'Look at the value and its unit again; if it is meant, accept it and say why.',
  'What is usual in the trade, with room to spare',
);

interface Off {
  path: string;
  label: string;
  unit: string;
  value: number;
  usual: readonly [number, number];
}

const n = formatNumber;
const said = ({ label, unit, value, usual: [least, most] }: Off) => {
  const of = unit === '' ? '' : ` ${unit}`;
  return `${label}: ${n(value)}${of}, where ${n(least)} to ${n(most)}${of} is usual.`;
};

/** Of the fields of a thing those that are numbers with something usual about them, or that hold things. */
const looked = new Map<Fields, [name: string, field: Fields[string]][]>();
function lookedAt(fields: Fields): [name: string, field: Fields[string]][] {
  const known = looked.get(fields);
  if (known !== undefined) return known;
  const made = Object.entries(fields).filter(
    ([, { usual, inner }]) => usual !== undefined || inner !== undefined,
  );
  looked.set(fields, made);
  return made;
}

/** Values of a thing beyond what is usual, in the units they are shown in. */
function offIn(fields: Fields, item: object, path: string, off: Off[] = []): Off[] {
  for (const [name, { label, unit = '', usual, shown, inner }] of lookedAt(fields)) {
    const value = (item as Record<string, unknown>)[name];
    if (value === undefined) continue;
    if (inner !== undefined) {
      if (typeof value !== 'object' || value === null) continue;
      if (inner.kind === 'one') offIn(inner.fields, value, `${path}.${name}`, off);
      else
        for (const [id, one] of Object.entries(value))
          offIn(inner.fields, one as object, `${path}.${name}.${id}`, off);
      continue;
    }
    if (typeof value !== 'number' || (value >= usual![0] && value <= usual![1])) continue;
    const scale = shown?.scale ?? 1;
    off.push({
      path: `${path}.${name}`,
      label,
      unit: shown?.unit ?? unit,
      value: value / scale,
      usual: [usual![0] / scale, usual![1] / scale],
    });
  }
  return off;
}

/** A finding for each station at which something of the thing is to be looked at. */
function checksOf(subject: string, off: readonly Off[]): Check[] {
  const rules = new Map<Rule, Off[]>();
  for (const one of off) {
    const rule = ruleOf(one.path);
    rules.set(rule, [...(rules.get(rule) ?? []), one]);
  }
  return [...rules].map(([rule, those]) =>
    judge(
      rule,
      [subject],
      [],
      those.map(said).join(' '),
      those.map(({ label, value, unit }): CheckValue => ({ label, value, unit })),
    ),
  );
}

/** Of a kind: what stands once in a design, and collections of things. */
const named = (kind: 'one' | 'map') =>
  (Object.keys(designFields) as (keyof typeof designFields)[]).filter(
    (name) => (designFields[name] as Fields[string]).inner?.kind === kind,
  );
const roots = named('one');
/** A body and its bond have one id: what is said of both is one finding. */
const bodies = ['boxes', 'devices', 'circuits', 'bonds'] as const;
const collections = named('map').filter((name) => !(bodies as readonly string[]).includes(name));
const fieldsOf = (name: keyof typeof designFields) => (designFields[name] as Fields[string]).inner!.fields;

/** Every number of the design against what is usual: slips of the unit and of the keyboard. */
export const usualStep: StepDefinition = {
  id: 'norms.usual',
  version: 1,
  subjects: (design) => [
    ...[...roots, ...collections].filter((name) => design[name] !== undefined),
    'things',
    'parts',
  ],
  compute(subject, read): { figures: []; checks: Check[] } {
    const off = new Map<string, Off[]>();
    const add = (id: string, found: Off[]) => {
      if (found.length > 0) off.set(id, [...(off.get(id) ?? []), ...found]);
    };
    const root = roots.find((name) => name === subject);
    if (root !== undefined)
      for (const one of offIn(fieldsOf(root), read.at(root) as object, root))
        add(thingOfPack(one.path) ?? root, [one]);
    else if (subject === 'parts')
      for (const [key, part] of Object.entries(read.at('parts'))) add(key, offInPart(key, part));
    else
      for (const name of subject === 'things' ? bodies : collections.filter((one) => one === subject))
        for (const [id, item] of Object.entries(read.at(name) ?? {}))
          add(id, offIn(fieldsOf(name), item as object, `${name}.${id}`));
    return { figures: [], checks: [...off].flatMap(([id, those]) => checksOf(id, those)) };
  },
};

/** Figures of the sheet of a pinned part likewise. */
function offInPart(key: string, part: Part): Off[] {
  return partFields[part.kind].flatMap((field): Off[] => {
    const usual = usualOfPart[part.kind][field.name];
    const value = fieldValue(part.data, field.name);
    if (field.kind !== 'number' || usual === undefined || typeof value !== 'number') return [];
    if (value >= usual[0] && value <= usual[1]) return [];
    // What cannot be at all is said by that.
    if (numberProblem(value, field.rule) !== null) return [];
    const { label, unit } = field;
    return [{ path: `parts.${key}`, label: `${part.label}, ${label.toLowerCase()}`, unit, value, usual }];
  });
}
