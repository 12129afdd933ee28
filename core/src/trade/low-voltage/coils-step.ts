import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id, Poles } from '../../model/document';
import type { PartKey } from '../../model/parts';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { saysLowVoltage } from './budget-step';
import { lowVoltageRules } from './rules';

const n = formatNumber;

/** Contactors that are held closed together: how many, of which kind, and whose. */
interface Held {
  id: Id;
  tag: string;
  /** Where its kind is chosen. */
  path: string;
  count: number;
  key: PartKey | undefined;
}

const coilsAt = (poles: Poles | undefined, whenUnsaid: number): number =>
  poles === undefined ? whenUnsaid : poles === 'both' ? 2 : poles === 'none' ? 0 : 1;

/** What is closed while it is driven, or while it is charged. */
function heldWhile(
  when: 'driving' | 'charging',
  { circuits, strings, devices }: Pick<Design, 'circuits' | 'strings' | 'devices'>,
): Held[] {
  const kindOf = (device: Id | undefined) => devices[device ?? '']?.kind;
  return [
    ...Object.entries(circuits).flatMap(([id, { tag, role, device, contactor, poles }]): Held[] => {
      const count = coilsAt(poles, role === 'main' || contactor !== undefined ? 2 : 0);
      const kind = kindOf(device);
      const closed =
        role === 'main' ||
        (when === 'driving' ? kind !== 'dc-inlet' : kind === 'dc-inlet' || kind === 'charger');
      return count === 0 || !closed
        ? []
        : [{ id, tag, path: `circuits.${id}.contactor`, count, key: contactor }];
    }),
    ...Object.entries(strings).flatMap(([id, { tag, contactor, contactorPoles }]): Held[] => {
      const count = coilsAt(contactorPoles, contactor === undefined ? 0 : 2);
      return count === 0 ? [] : [{ id, tag, path: `strings.${id}.contactor`, count, key: contactor }];
    }),
  ];
}

/** Power of what is held, W; and what is missing of it. */
function powerOf(held: readonly Held[], parts: Design['parts']): { sumW: number; gaps: Gap[] } {
  const gaps: Gap[] = [];
  let sumW = 0;
  for (const { tag, path, count, key } of held) {
    const part = parts[key ?? ''];
    if (part?.kind === 'contactor') sumW += count * part.data.coilHoldW;
    else gaps.push({ kind: 'not-given', path, label: `contactors of ${tag}` });
  }
  return { sumW, gaps };
}

/** The coils of all contactors that are closed together, against the loads that feed them. */
export const coilsStep: StepDefinition = {
  id: 'low-voltage.coils',
  version: 1,
  subjects: (design) => (saysLowVoltage(design) ? ['vehicle'] : []),
  compute(subject, read: Reader) {
    const parts = read.at('parts');
    const loads = read.at('loads') ?? {};
    const named = read.at('lowVoltage')?.coilLoads ?? [];
    const charged = Object.keys(read.at('supplies') ?? {}).length > 0;
    const slices = {
      circuits: read.at('circuits'),
      strings: read.at('strings'),
      devices: read.at('devices'),
    };
    const unsaid: Gap[] =
      named.length === 0
        ? [{ kind: 'not-given', path: 'lowVoltage.coilLoads', label: 'loads that feed the coils' }]
        : named.flatMap((id): Gap[] =>
            (['powerW', 'when'] as const).flatMap((field): Gap[] =>
              loads[id]?.[field] === undefined
                ? [
                    {
                      kind: 'not-given',
                      path: `loads.${id}.${field}`,
                      label: `${field === 'when' ? 'when' : 'power of'} ${loads[id]?.tag ?? id}${field === 'when' ? ' runs' : ''}`,
                    },
                  ]
                : [],
            ),
          );
    const times = (charged ? (['driving', 'charging'] as const) : (['driving'] as const)).map((when) => {
      const held = heldWhile(when, slices);
      const on = named.filter((id) => loads[id]?.when === when || loads[id]?.when === 'always');
      const countedW = on.reduce((sum, id) => sum + (loads[id]!.powerW ?? 0), 0);
      return { when, held, on, countedW, ...powerOf(held, parts) };
    });
    const figures = times.map(({ when, held, sumW, gaps }): Figure => {
      const label = `Held coils while ${when}`;
      return {
        id: figureId('low-voltage.coils', subject, when === 'driving' ? 'drivingW' : 'chargingW'),
        label,
        unit: 'W',
        value: gaps.length > 0 ? null : sumW,
        gaps,
        working:
          gaps.length > 0
            ? []
            : [
                {
                  symbol: 'P_h',
                  label,
                  formula: 'Σ n·P_i',
                  inputs: held.map(({ tag, count, key }) => ({
                    symbol: 'n·P_i',
                    label: tag,
                    value:
                      count *
                      (parts[key!] as Extract<(typeof parts)[string], { kind: 'contactor' }>).data.coilHoldW,
                    unit: 'W',
                  })),
                  value: sumW,
                  unit: 'W',
                  source: 'Makers’ power of a held coil, of all that are closed at that time',
                },
              ],
      };
    });
    const less = times.filter(({ on, countedW, sumW }) => on.length > 0 && countedW < sumW * (1 - 1e-9));
    const off = times.filter(({ held, on }) => held.length > 0 && on.length === 0);
    const keys = [
      ...new Set(times.flatMap(({ held }) => held.flatMap(({ key }) => (key === undefined ? [] : [key])))),
    ];
    const also = ['lowVoltage', ...named];
    const checks: Check[] = [
      judge(
        lowVoltageRules.coilsLess,
        [subject],
        [...unsaid, ...times.flatMap(({ gaps }) => gaps)],
        less.length > 0
          ? `${less.map(({ when, sumW, countedW }) => `While ${when} held coils draw ${n(sumW)} W; what feeds them is counted with ${n(countedW)} W`).join('. ')}.`
          : null,
        times.flatMap(({ when, sumW, countedW }) => [
          { label: `held while ${when}`, value: sumW, unit: 'W' },
          { label: `counted with while ${when}`, value: countedW, unit: 'W' },
        ]),
        { parts: keys, also },
      ),
      judge(
        lowVoltageRules.coilsWhen,
        [subject],
        unsaid,
        off.length > 0
          ? `While ${off.map(({ when }) => when).join(' and ')} ${n(0)} of ${n(named.length)} loads that feed the coils ${named.length === 1 ? 'is' : 'are'} on.`
          : null,
        [
          { label: 'loads that feed the coils', value: named.length, unit: '' },
          { label: 'of them on', value: 0, unit: '' },
          ...times.map(({ when, on }) => ({
            label: `on while ${when}`,
            value: on.length === 0 ? 0 : 1,
            unit: '',
          })),
        ],
        { also },
      ),
    ];
    return { figures, checks };
  },
};
