/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'contactor.coil': 'pullInV' | 'releaseMs' | 'holdW';
    'contactor.main': never;
    'contactor.string': never;
    'contactor.precharge': never;
    'contactor.supply': never;
    'contactor.disconnect': never;
    'contactor.plug': never;
  }
}

export {};
