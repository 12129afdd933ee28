/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'pack.box': 'anchorForceN' | 'roomFor';
    'pack.lift': 'offCentreM' | 'worstPointKg';
    'pack.source': 'linksOhm' | 'stringOhm' | 'voltageAtLowV';
    'pack.temperature': 'warmOhm' | 'coldOhm';
    'pack.pack':
      | 'voltageMinV'
      | 'voltageMaxV'
      | 'voltageNominalV'
      | 'capacityAh'
      | 'energyKWh'
      | 'usableEnergyKWh'
      | 'resistanceOhm'
      | 'sagAtPeakV'
      | 'voltageAtPeakV'
      | 'cellVoltageAtPeakV'
      | 'shortCircuitCurrentA'
      | 'massKg';
    'pack.string':
      | 'cells'
      | 'voltageMinV'
      | 'voltageNominalV'
      | 'voltageMaxV'
      | 'capacityAh'
      | 'energyKWh'
      | 'modulesOhm'
      | 'massKg';
    'pack.windows': never;
    'pack.placing': never;
    'pack.sound': never;
    'pack.alike': never;
    'pack.standing': never;
    'pack.lead': 'ohm';
    'pack.charging': never;
    'pack.posts': never;
    'pack.heater': 'powerAtLowW' | 'powerAtMaxW';
  }
}

export {};
