import { interpolate, type Table } from '../../ground/math';
import { usualCellLimits, type Design } from '../../model/document';
import type { Chemistry, ModuleData } from '../../model/parts';

/** Cells at most, and charged from, °C: as given, else usual for the chemistry. */
export function cellLimits(
  cooling: Design['cooling'],
  chemistry: Chemistry | undefined,
): { maxC: number; chargeMinC: number } {
  const usual = usualCellLimits[chemistry ?? 'NMC'];
  return {
    maxC: cooling?.cellMaxC ?? usual.maxC,
    chargeMinC: cooling?.cellChargeMinC ?? usual.chargeMinC,
  };
}

/** What modules side by side take for long at a temperature, A; null: the maker does not say. Colder than its table: what its end says. */
export function packTakesA(
  { chargeA, chargeOverC }: Pick<ModuleData, 'chargeA' | 'chargeOverC'>,
  strings: number,
  temperatureC?: number,
): number | null {
  if (temperatureC !== undefined && chargeOverC !== undefined)
    return strings * interpolate(chargeOverC as Table, temperatureC);
  return chargeA === undefined ? null : strings * chargeA;
}
