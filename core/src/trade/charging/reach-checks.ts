import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Id, SupplyItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { chargeRules } from './rules';
import { inletOf, takes } from './supply-inputs';

const n = formatNumber;
const percent = (label: string, value: number) => ({ label, value: value * 100, unit: '%' });

/** Of a supply of any kind: whether it can be plugged in, and whether it charges within the window of the pack. */
export function reachChecks(subject: Id, supply: SupplyItem, read: Reader): Check[] {
  const { tag, kind, fromFraction, toFraction } = supply;
  const inlets = read.at('inlets') ?? {};
  const found = inletOf(supply, inlets);
  const count = Object.keys(inlets).length;
  const unfit = found === null ? count > 0 : !takes(found.item, kind);
  const { socLowFraction, socHighFraction } = read.at('pack');
  const unsaid = (value: unknown, path: string, label: string): Gap[] =>
    value === undefined ? [{ kind: 'not-given', path, label }] : [];
  const above =
    toFraction !== undefined && socHighFraction !== undefined && toFraction > socHighFraction + 1e-9;
  const below =
    fromFraction !== undefined && socLowFraction !== undefined && fromFraction < socLowFraction - 1e-9;
  const current = kind === 'station' ? 'a station' : 'the mains';
  return [
    judge(
      chargeRules.wrongInlet,
      [subject],
      count === 0 ? [{ kind: 'not-given', path: 'inlets', label: `an inlet for ${current}` }] : [],
      unfit
        ? found === null
          ? `${tag}: ${n(0)} of ${n(count)} inlets take current of ${current}.`
          : `${tag} is plugged into ${found.item.tag}, which takes ${n(0)} A of ${current}.`
        : null,
      [
        { label: 'inlets', value: count, unit: '' },
        { label: 'that take it', value: unfit ? 0 : 1, unit: '' },
        { label: 'takes', value: 0, unit: 'A' },
      ],
      { also: found === null ? Object.keys(inlets) : [found.id] },
    ),
    judge(
      chargeRules.beyondWindow,
      [subject],
      above || below
        ? []
        : [
            ...(toFraction === undefined
              ? []
              : unsaid(socHighFraction, 'pack.socHighFraction', 'top of the charge window')),
            ...(fromFraction === undefined
              ? []
              : unsaid(socLowFraction, 'pack.socLowFraction', 'bottom of the charge window')),
          ],
      above || below
        ? `${tag} charges ${below ? `from ${n(fromFraction * 100)} %` : ''}${below && above ? ' ' : ''}${above ? `to ${n(toFraction * 100)} %` : ''}; the pack’s window is ${n((socLowFraction ?? 0) * 100)} to ${n((socHighFraction ?? 1) * 100)} %.`
        : null,
      [
        percent('from', fromFraction ?? socLowFraction ?? 0),
        percent('to', toFraction ?? socHighFraction ?? 1),
        percent('window from', socLowFraction ?? 0),
        percent('window to', socHighFraction ?? 1),
      ],
    ),
  ];
}
