import { figureId } from '../../ground/figure';
import type { Inputs, Reader } from '../../model/step';

/** What the low voltage takes out of the pack while driving. */
export const lowVoltageW = figureId('low-voltage.budget', 'vehicle', 'packW');

/** What accessories draw: typed, else what the loads of the low voltage take. */
export function accessories(inputs: Inputs, read: Reader): void {
  const { accessoriesW } = read.at('vehicle');
  if (accessoriesW === undefined && Object.keys(read.at('loads') ?? {}).length > 0)
    inputs.figure('accessoriesW', lowVoltageW);
  else inputs.given('accessoriesW', accessoriesW, 'vehicle.accessoriesW', 'accessory power');
}
