/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'vehicle.cycle': 'distanceKm' | 'whPerKm' | 'peakA' | 'regenPeakA' | 'rmsA' | 'rangeKm';
    'vehicle.plausible': never;
    'vehicle.places': never;
    'vehicle.masses': 'outKg' | 'inKg' | 'boxesKg' | 'changeKg';
    'vehicle.axles':
      'frontKg' | 'rearKg' | 'totalKg' | 'frontFraction' | 'originalFrontFraction' | 'shiftPoints';
    'vehicle.winter': 'whPerKm' | 'rangeKm';
    'vehicle.range': 'whPerKm' | 'rangeKm' | 'batteryPowerW';
  }
}

export {};
