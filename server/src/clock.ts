/** The server's clock; tests and the demo's history bring their own. */
export interface Clock {
  /** UTC, ISO 8601 with milliseconds. */
  now(): string;
}

export const systemClock: Clock = { now: () => new Date().toISOString() };
