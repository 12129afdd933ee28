import { figureId } from '../../ground/figure';
import type { PartOf } from '../../model/parts';
import type { Inputs, Reader } from '../../model/step';

export const packHighest = figureId('pack.pack', 'pack', 'voltageMaxV');

/** The capacitance of a bus. */
export const capacitanceOf = (bus: string) => figureId('precharge.bus', bus, 'capacitanceF');

/** The resistor that is chosen, if it is one. */
export function chosenResistor(read: Reader, key: string | undefined): PartOf<'resistor'> | null {
  const part = key === undefined ? undefined : read.at('parts', key);
  return part?.kind === 'resistor' ? part : null;
}

/** What stands on the bus while it fills; nothing is no gap. */
export function readLoad(inputs: Inputs, read: Reader, bus: string): void {
  const load = read.figure(figureId('precharge.bus', bus, 'loadOhm'));
  if (load.value !== null || load.gaps.some(({ kind }) => kind !== 'never'))
    inputs.figure('parallelLoadOhm', load.id);
}
