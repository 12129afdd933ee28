import type { Issue } from '@torvek/core/shape';

/** An answer of the server that is not the one that was hoped for. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly issues: Issue[],
    readonly extra: Record<string, unknown>,
  ) {
    super(message);
  }
}

let signedOut: () => void = () => undefined;

/** Calls back when the server says that nobody is signed in here any more. */
export function onSignedOut(callback: () => void): void {
  signedOut = callback;
}

/** The server could not be reached. */
export class Unreachable extends Error {}

/** What may be over the next time: no server, a busy one, nobody signed in. */
export const isPassing = (error: unknown) =>
  error instanceof Unreachable ||
  (error instanceof ApiError && (error.status >= 500 || error.status === 401 || error.status === 429));

async function send(method: string, path: string, body?: unknown): Promise<Response> {
  const bytes = body instanceof Blob;
  try {
    return await fetch(`/api${path}`, {
      method,
      ...(body !== undefined && {
        body: bytes ? body : JSON.stringify(body),
        headers: { 'Content-Type': bytes ? 'application/octet-stream' : 'application/json' },
      }),
    });
  } catch {
    throw new Unreachable('the server cannot be reached');
  }
}

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await send(method, path, body);
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  throw refusal(response, answer);
}

/** A file that the server makes, with the name that it gives it. */
async function file(path: string): Promise<{ bytes: Blob; name: string }> {
  const response = await send('GET', path);
  if (!response.ok) throw refusal(response, await response.json().catch(() => null));
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1];
  return { bytes: await response.blob(), name: name ?? 'sheet.pdf' };
}

function refusal(response: Response, answer: unknown): ApiError {
  const {
    code = 'unknown',
    message = `the server answered ${response.status}`,
    issues = [],
    ...extra
  } = (answer as { error?: { code?: string; message?: string; issues?: Issue[] } } | null)?.error ?? {};
  if (response.status === 401 && code === 'not-signed-in') signedOut();
  return new ApiError(response.status, code, message, issues, extra);
}

export const api = {
  file,
  get: <T>(path: string) => call<T>('GET', path),
  post: <T>(path: string, body: unknown) => call<T>('POST', path, body),
  patch: <T>(path: string, body: unknown) => call<T>('PATCH', path, body),
};

const alphabet = 'abcdefghijkmnpqrstuvwxyz23456789';

/** An id: a kind prefix and ten random characters (`crypto.randomUUID` is missing on plain HTTP). */
export function newId(prefix: string): string {
  const random = crypto.getRandomValues(new Uint8Array(10));
  return `${prefix}-${[...random].map((byte) => alphabet[byte % alphabet.length]).join('')}`;
}
