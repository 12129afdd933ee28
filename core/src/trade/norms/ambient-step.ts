import type { CheckValue, Rule } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { coolingDefaults, type Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { rulesByStation } from './by-station';

const ruleOf = rulesByStation(
  'cold-ambient',
  'mend',
  'Something is judged colder than the hottest day',
  'Cables, bars and fuses carry less the warmer they lie; nothing in a vehicle is colder than the air around it.',
  'The ambient it has on the hottest day, with what warms it beside it; or the hottest day as it is.',
  'Ambient as typed against the hottest day that is given at Cool',
);
const n = formatNumber;
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

interface Ambient {
  id: Id;
  path: string;
  /** What lies there, in words. */
  lies: string;
  value: number | undefined;
}

/** Every ambient that somebody typed. */
function ambientsOf(read: Reader): Ambient[] {
  const { leads = {}, busbars = {} } = read.at('pack');
  const lowVoltage = read.at('lowVoltage');
  const of = <Item extends { tag?: string }>(
    things: Readonly<Record<Id, Item>>,
    at: string,
    fields: readonly (keyof Item & string)[],
  ): Ambient[] =>
    Object.entries(things).flatMap(([id, item]) =>
      fields.map((field) => ({
        id,
        path: `${at}.${id}.${field}`,
        lies: field === 'fuseAmbientC' ? `the fuse of ${item.tag ?? id} lies` : `${item.tag ?? id} lies`,
        value: item[field] as number | undefined,
      })),
    );
  return [
    ...of(read.at('circuits'), 'circuits', ['ambientC', 'fuseAmbientC']),
    ...of(read.at('strings'), 'strings', ['fuseAmbientC']),
    ...of(leads, 'pack.leads', ['ambientC']),
    ...of(busbars, 'pack.busbars', ['ambientC']),
    ...of(read.at('loads') ?? {}, 'loads', ['ambientC']),
    ...(lowVoltage === undefined
      ? []
      : [
          {
            id: 'lowVoltage',
            path: 'lowVoltage.ambientC',
            lies: 'the looms lie',
            value: lowVoltage.ambientC,
          },
        ]),
  ];
}

/** Ambients that conductors and fuses are judged in, against the hottest day. */
export const ambientStep: StepDefinition = {
  id: 'norms.ambient',
  version: 1,
  subjects: () => ['vehicle'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const given = read.at('cooling')?.hotC;
    const hotC = given ?? coolingDefaults.hotC;
    const cold = new Map<string, { rule: Rule; id: Id; those: (Ambient & { value: number })[] }>();
    for (const one of ambientsOf(read)) {
      const { value, id, path } = one;
      if (value === undefined || value >= hotC) continue;
      const rule = ruleOf(path);
      const key = `${rule.id} ${id}`;
      const there = cold.get(key) ?? { rule, id, those: [] };
      there.those.push({ ...one, value });
      cold.set(key, there);
    }
    return {
      figures: [],
      checks: [...cold.values()].map(({ rule, id, those }) =>
        judge(
          rule,
          [id],
          [],
          `${capital(those.map(({ lies, value }) => `${lies} in ${n(value)} °C`).join(', '))}; the hottest day ${given === undefined ? 'is taken as' : 'has'} ${n(hotC)} °C.`,
          [
            ...those.map(({ lies, value }): CheckValue => ({
              label: `${lies} in`,
              value,
              unit: '°C',
            })),
            { label: 'hottest day', value: hotC, unit: '°C' },
          ],
        ),
      ),
    };
  },
};
