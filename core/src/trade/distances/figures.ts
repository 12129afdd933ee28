/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'distances.box': 'clearanceMm' | 'creepageMm' | 'reinforcedClearanceMm' | 'reinforcedCreepageMm';
  }
}

export {};
