/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'norms.settings': never;
    'norms.circuit': never;
    'norms.usual': never;
    'norms.parts': never;
  }
}

export {};
