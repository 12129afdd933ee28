/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'norms.settings': never;
    'norms.circuits': never;
    'norms.usual': never;
    'norms.ambient': never;
  }
}

export {};
