/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'busbar.bar': 'temperatureC' | 'lossW' | 'densityAtHoleAPerMm2' | 'expansionMmPer50K';
    'conductor.cable':
      'ampacityA' | 'conductorTemperatureC' | 'voltageDropV' | 'dropFraction' | 'lossW' | 'timeConstantS';
    'conductor.sizes': never;
    'conductor.lead': 'ampacityA' | 'conductorTemperatureC';
    'conductor.lead-fault': never;
    'conductor.leads': never;
    'conductor.sense': never;
    'conductor.duty': 'peakTemperatureC';
    'conductor.ends': never;
    'conductor.loop': 'loopOhm';
  }
}

export {};
