/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'charge.supply':
      | 'availableA'
      | 'neutralA'
      | 'inputW'
      | 'outputW'
      | 'offeredA'
      | 'cRate'
      | 'minutes'
      | 'peakA'
      | 'energyToPackKWh'
      | 'energyMainsKWh'
      | 'heatW';
    'charge.breaker': 'inrushPeakA' | 'opensFromA' | 'aloneToA';
    'charge.winter': 'minutes' | 'warmMinutes' | 'takesA';
    'charge.station':
      | 'usableFromV'
      | 'usableToV'
      | 'maxPowerKW'
      | 'limitA'
      | 'minutes'
      | 'peakA'
      | 'energyToPackKWh'
      | 'heatW';
    'charge.inlet': never;
    'charge.cut': never;
    'charge.charger': never;
    'charge.branch': 'currentA';
    'charge.ladder': 'shortfallMv';
  }
}

export {};
