/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'network.load': 'rmsA' | 'peakA';
    'network.network': never;
    'network.structure': never;
    'network.device-load': never;
  }
}

export {};
