import { figureId } from '../../ground/figure';
import type { Inputs, Reader } from '../../model/step';

/** What the low voltage takes out of the pack while driving. */
export const lowVoltageW = figureId('low-voltage.budget', 'vehicle', 'packW');

/**
 * What accessories draw: typed, else what the loads of the low voltage take.
 *
 * @returns it, W; undefined: not known, and a gap of the inputs
 */
export function accessories(inputs: Inputs, read: Reader): number | undefined {
  const { accessoriesW } = read.at('vehicle');
  if (accessoriesW === undefined && Object.keys(read.at('loads') ?? {}).length > 0)
    return inputs.figure('accessoriesW', lowVoltageW);
  return inputs.given('accessoriesW', accessoriesW, 'vehicle.accessoriesW', 'accessory power');
}
