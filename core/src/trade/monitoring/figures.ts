/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'monitoring.map': 'boards' | 'wires' | 'cellsLeft' | 'spareChannels' | 'worstMv';
    'monitoring.board': 'errorMv' | 'leadM';
    'monitoring.link': 'ageS';
    'monitoring.sensors': never;
    'monitoring.donor': 'chargeErrorFraction';
    'monitoring.order': never;
    'monitoring.spin': 'modules' | 'voltageV' | 'highestV' | 'shortA';
    'monitoring.current': never;
  }
}

export {};
