import {
  metricChoice,
  nearestAwg,
  shownIn,
  showQuantity,
  type ShownIn,
  type UnitChoice,
} from '@torvek/core/quantity';
import { useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** The units a person reads and types in, kept in this browser; the design and the record keep their own. */
export const useUnits = defineStore('units', () => {
  const choice = useStorage<UnitChoice>('torvek.units', { ...metricChoice }, undefined, {
    mergeDefaults: true,
  });

  /** How a field of a unit shows and reads its value. */
  function field(unit = '', scale = 1): ShownIn & { converted: boolean } {
    const as = shownIn(unit, choice.value, scale);
    return { ...as, converted: as.unit !== unit };
  }

  /** A figure in the unit of choice. */
  function show(value: number, unit: string, digits?: number) {
    const { unit: shown, scale, offset } = shownIn(unit, choice.value);
    return showQuantity(value / scale + offset, shown, digits);
  }

  /** The same as one text. */
  function say(value: number, unit: string, digits?: number): string {
    const shown = show(value, unit, digits);
    return shown.unit === '' ? shown.number : `${shown.number} ${shown.unit}`;
  }

  /** The AWG size beside an area, when it is wanted; empty otherwise. */
  function gauge(areaMm2: number): string {
    const size = choice.value.area === 'AWG' ? nearestAwg(areaMm2) : null;
    return size === null ? '' : `≈ ${size} AWG`;
  }

  return { choice, field, show, say, gauge };
});
