import type { Check } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Design, DeviceItem, Id } from '../../model/document';
import type { PartKey } from '../../model/parts';
import { judge } from '../../model/step';
import { chargeRules } from './rules';

const n = formatNumber;

interface Beyond {
  values: CheckValue[];
  words: string;
}

/** What is typed of a device beyond its sheet; less is a setting, more is nothing that it does. */
function over(
  label: string,
  typed: number | undefined,
  most: number | undefined,
  unit: string,
  sign = 1,
): Beyond[] {
  if (typed === undefined || most === undefined || sign * (typed - most) <= 1e-9) return [];
  return [
    {
      values: [
        { label: `${label}, typed`, value: typed, unit },
        { label: `${label}, by its sheet`, value: most, unit },
      ],
      words: `${label} ${n(typed)} ${unit}, by its sheet ${n(most)} ${unit}`,
    },
  ];
}

/**
 * What is typed of a charger, or of a converter, against the sheet of its part.
 *
 * @param subject the device, or the circuit that feeds it
 * @param key the part; a charger’s own where it is left out
 */
export function beyondPartChecks(
  subject: Id,
  device: DeviceItem,
  parts: Design['parts'],
  key: PartKey | undefined = device.charger,
): Check[] {
  const part = parts[key ?? ''];
  if (part?.kind !== 'charger' && part?.kind !== 'converter') return [];
  const { minV, maxV } = part.data;
  const beyond = [...over('from', device.minV, minV, 'V', -1), ...over('up to', device.maxV, maxV, 'V')];
  if (part.kind === 'charger') {
    const { maxInputA, maxOutputA, isolated } = part.data;
    beyond.push(
      ...over('from the mains', device.maxInputA, maxInputA, 'A'),
      ...over('into the pack', device.maxOutputA, maxOutputA, 'A'),
    );
    if (device.isolation === 'isolated' && !isolated)
      beyond.push({
        values: [{ label: 'parts it from the mains, by its sheet', value: 0, unit: '' }],
        words: 'parted from the mains as typed, by its sheet it is not',
      });
  }
  return [
    judge(
      chargeRules.overPart,
      [subject],
      [],
      beyond.length > 0 ? `${device.tag}: ${beyond.map(({ words }) => words).join('; ')}.` : null,
      beyond.flatMap(({ values }) => values),
      { parts: [key!] },
    ),
  ];
}
