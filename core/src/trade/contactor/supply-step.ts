import { rulesOf } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { supplyOf, switchedCircuits, type Design } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { coilOf } from './coil';

export const coilSupplyRule = rulesOf('contactor')(
  'coil-supply',
  'mend',
  'The coil is made for another supply',
  'A coil for 12 V burns on 24 V, and one for 24 V only half pulls in on 12 V.',
  'Contactors whose coils are for the supply of the vehicle, or the supply as it is.',
  'Nominal voltage of the coil against that of the low-voltage side',
);

/** Nominal voltages further apart than this are not of one supply. */
const within = 1.25;

/** Every contactor of the design with where it sits: each circuit’s, its pre-charge’s, each string’s. */
export function contactorsOf({
  circuits,
  strings,
}: Pick<Design, 'circuits' | 'strings'>): { subject: string; what: string; key: string }[] {
  const placed = (subject: string, what: string, key: string | undefined) =>
    key === undefined ? [] : [{ subject, what, key }];
  return [
    ...Object.entries(circuits).flatMap(([id, { tag, contactor, prechargeContactor }]) => [
      ...placed(id, `the contactors of ${tag}`, contactor),
      ...placed(id, `the pre-charge contactor of ${tag}`, prechargeContactor),
    ]),
    ...Object.entries(strings).flatMap(([id, { tag, contactor }]) =>
      placed(id, `the contactors of ${tag}`, contactor),
    ),
  ];
}

/** Every coil against the nominal supply. */
export const coilSupplyStep: StepDefinition = {
  id: 'contactor.supply',
  version: 1,
  subjects: () => ['coils'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const supplyV = supplyOf(read.at('settings'));
    const parts = read.at('parts');
    const bySubject = new Map<string, { what: string; key: string; coilV: number }[]>();
    for (const { subject, what, key } of contactorsOf({
      circuits: read.at('circuits'),
      strings: read.at('strings'),
    })) {
      const part = parts[key];
      if (part?.kind !== 'contactor') continue;
      const { coilV } = part.data;
      // Where the pull-in is known, a coil for more is judged by it: one cause is one finding.
      const off = coilV * within < supplyV || (coilV > supplyV * within && coilOf(part.data) === null);
      const all = bySubject.get(subject) ?? [];
      bySubject.set(subject, all);
      if (off) all.push({ what, key, coilV });
    }
    const open = [
      ...switchedCircuits({ circuits: read.at('circuits') }).map((id) => [`circuits.${id}`, id] as const),
      ...Object.entries(read.at('strings')).flatMap(([id, { contactorPoles = 'none' }]) =>
        contactorPoles === 'none' ? [] : [[`strings.${id}`, id] as const],
      ),
    ].filter(([, id]) => !bySubject.has(id));
    return {
      figures: [],
      checks: [
        ...open.map(([at, id]) =>
          judge(
            coilSupplyRule,
            [id],
            [{ kind: 'not-given', path: `${at}.contactor`, label: 'contactors' }],
            null,
          ),
        ),
        ...[...bySubject].map(([subject, off]) =>
          judge(
            coilSupplyRule,
            [subject],
            [],
            off.length === 0
              ? null
              : `${off.map(({ what, coilV }) => `${what}: ${formatNumber(coilV)} V`).join('; ')}; the supply has ${formatNumber(supplyV)} V.`.replace(
                  /^t/,
                  'T',
                ),
            [
              { label: 'nominal supply', value: supplyV, unit: 'V' },
              ...off.map(({ what, coilV }) => ({ label: `coil of ${what}`, value: coilV, unit: 'V' })),
            ],
            { parts: off.map(({ key }) => key) },
          ),
        ),
      ],
    };
  },
};
