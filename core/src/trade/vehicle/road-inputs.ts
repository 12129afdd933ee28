import type { Vehicle } from '../../model/document';
import type { Inputs } from '../../model/step';

/** What road load at a steady speed takes from the brief, but for what accessories draw. */
export function roadInputs(inputs: Inputs, vehicle: Vehicle): void {
  for (const [field, label] of [
    ['speedKmH', 'steady speed'],
    ['rollingCoefficient', 'rolling coefficient'],
    ['dragAreaM2', 'drag area'],
    ['drivetrainEfficiency', 'drive train efficiency'],
  ] as const)
    inputs.given(field, vehicle[field], `vehicle.${field}`, label);
  inputs.optional('airDensityKgM3', vehicle.airDensityKgM3, 'vehicle.airDensityKgM3', 'air density');
  inputs.optional('gradeFraction', vehicle.gradeFraction, 'vehicle.gradeFraction', 'grade');
}
