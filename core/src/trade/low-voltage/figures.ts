/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'low-voltage.controller': never;
    'low-voltage.budget':
      | 'drivingA'
      | 'chargingA'
      | 'parkedA'
      | 'drivingW'
      | 'packW'
      | 'peakA'
      | 'marginA'
      | 'hoursOnBatteryDriving'
      | 'hoursEssentialOnly'
      | 'daysParked';
    'low-voltage.load': 'currentA' | 'areaMm2' | 'dropV' | 'fuseA';
    'low-voltage.source': 'currentA' | 'carriesA' | 'dropV';
    'low-voltage.group': never;
    'low-voltage.service': never;
    'looms.wire': 'lengthM' | 'currentA' | 'dropV';
    'low-voltage.fed': never;
    'low-voltage.heater': never;
    'low-voltage.feeding': never;
    'low-voltage.coils': 'drivingW' | 'chargingW';
    'looms.end': never;
    'looms.bundle': never;
    'looms.adapter': never;
    'looms.colour': never;
  }
}

export {};
