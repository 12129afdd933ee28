/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'joints.kind': 'forceN' | 'proofShare';
    'joints.all': 'count';
    'joints.current': 'rmsA' | 'peakA';
  }
}

export {};
