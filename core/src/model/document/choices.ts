/** Which poles a pair of contactors opens. */
export const polesSwitched = ['both', 'plus', 'minus', 'none'] as const;
export type Poles = (typeof polesSwitched)[number];

/** How a cable is laid. */
export const installs = ['free-air', 'steel-conduit'] as const;
export type Install = (typeof installs)[number];

/** How a cable passes the walls it ends at. */
export const cableEnds = ['interlocked', 'plain', 'gland'] as const;
export type CableEnds = (typeof cableEnds)[number];
