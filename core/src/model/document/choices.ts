/** Which poles a pair of contactors opens. */
export const polesSwitched = ['both', 'plus', 'minus', 'none'] as const;
export type Poles = (typeof polesSwitched)[number];

/** How a cable passes the walls it ends at. */
export const cableEnds = ['interlocked', 'plain', 'gland'] as const;
export type CableEnds = (typeof cableEnds)[number];
