/** The figures of this room’s steps; a step without any stands here with `never`. */
declare module '../../ground/figure' {
  interface StepFigures {
    'fuse.inrush': never;
    'fuse.selective': never;
    'fuse.fault': 'prospectiveA' | 'timeConstantS';
    'fuse.main': 'rmsFraction' | 'clearAtMinS' | 'meltAtMaxS' | 'wearPerPeriod';
    'fuse.choice': never;
    'fuse.sum': never;
    'fuse.tap': never;
    'fuse.strings': 'faultA' | 'mostRmsA' | 'mostPeakA' | 'circulatingA';
  }
}

export {};
