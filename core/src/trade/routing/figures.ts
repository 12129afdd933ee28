/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'routing.run': 'pathLengthM' | 'cutLengthM' | 'totalBendDeg' | 'cablesKg' | 'toleranceMm';
    'routing.tube': 'tubeCutMm' | 'fillFraction' | 'pullN' | 'sidewallNPerM';
    'routing.hold': 'freeSpanM';
    'routing.routed': never;
    'routing.place': never;
    'routing.phases': 'shortestM' | 'longestM';
    'routing.signal': never;
    'routing.opening': never;
    'routing.face': 'takenMm';
    'routing.through': never;
  }
}

export {};
