/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'precharge.bus': 'capacitanceF' | 'bleedOhm' | 'emptyOhm' | 'loadOhm';
    'precharge.choice': 'idealResistanceOhm';
    'precharge.direct': 'inrushA' | 'i2tA2s';
    'precharge.discharge': 'timeToSafeS' | 'energyJ' | 'bleedPowerAtVoltageW' | 'largestBleedOhmForLimit';
    'precharge.path': 'pathOhm';
    'precharge.run':
      | 'timeConstantS'
      | 'finalVoltageV'
      | 'timeToThresholdS'
      | 'peakCurrentA'
      | 'peakPowerW'
      | 'resistorEnergyJ'
      | 'busShortedEnergyJ'
      | 'voltageAtCloseV'
      | 'inrushA';
  }
}

export {};
