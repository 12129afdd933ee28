/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'bonding.body': 'pathOhm';
    'bonding.cable': never;
    'bonding.sense': never;
    'bonding.source': never;
    'charging.supply': never;
  }
}

export {};
