/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'cooling.hill': 'powerW' | 'currentA' | 'packHeatW';
    'cooling.charge': 'minutes' | 'packHeatW' | 'peakA';
    'cooling.loop':
      | 'flowLPerMin'
      | 'headKPa'
      | 'imbalanceFraction'
      | 'shareFraction'
      | 'hottestC'
      | 'hottestBestC'
      | 'platesC'
      | 'cellsC'
      | 'packUaWPerK'
      | 'modulesDriveC'
      | 'modulesChargeC'
      | 'coldWPerK';
    'cooling.present': 'flowLPerMin' | 'volumeL';
    'cooling.school': never;
    'cooling.heater': never;
    'cooling.plumbing': never;
    'cooling.fill': 'volumeL' | 'expansionL' | 'neededTankL';
    'cooling.box': 'uaWPerK' | 'heaterW' | 'warmS' | 'holdW' | 'energyKWh' | 'finalC';
    'cooling.cabin': 'wPerK' | 'neededW' | 'givesW' | 'reachesC' | 'screenC' | 'dewC';
    'cooling.air': 'airKgPerS' | 'airWPerK' | 'outC' | 'cellsC';
    'cooling.pack': 'driveMaxC' | 'driveEndC' | 'chargeMaxC' | 'uncooledMaxC' | 'morningC' | 'settledMaxC';
  }
}

export {};
