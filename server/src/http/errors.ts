import type { Issue } from '@torvek/core/shape';

/** An answer that is not the one that was hoped for; its body has one shape everywhere. */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly issues: Issue[] = [],
    readonly extra: Record<string, unknown> = {},
  ) {
    super(message);
  }

  body(): { error: Record<string, unknown> } {
    return { error: { code: this.code, message: this.message, issues: this.issues, ...this.extra } };
  }
}

export const invalidInput = (issues: Issue[]) =>
  new HttpError(
    422,
    'invalid-input',
    issues
      .map(({ path, message }) => `${path} ${message}`.trim())
      .slice(0, 3)
      .join('; '),
    issues,
  );

export const notFound = (what: string) => new HttpError(404, 'not-found', `${what} is not there`);
