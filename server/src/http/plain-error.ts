/** What of an error may stand in a log: never what was sent, and never what a database says of it. */
export interface PlainError {
  type: string;
  /** Left out for errors of the database: they quote values. */
  message?: string;
  /** SQLSTATE, or a code of Node. */
  code?: string;
  stack: string;
}

/** Five digits or capitals: how a database names its errors. */
const sqlState = /^[0-9A-Z]{5}$/;

/**
 * The parts of an error that a log may hold. Errors of the database carry the statement, its parameters (names, password
 * hashes) and sentences that quote rows: of them only the code and where it happened are kept.
 */
export function plainError(error: unknown): PlainError {
  if (!(error instanceof Error)) return { type: typeof error, stack: '' };
  const { code } = error as { code?: unknown };
  const ofDatabase =
    (typeof code === 'string' && sqlState.test(code)) || 'severity' in error || 'query' in error;
  return {
    type: error.name,
    ...(!ofDatabase && { message: error.message }),
    ...(typeof code === 'string' && { code }),
    stack: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .join('\n'),
  };
}
