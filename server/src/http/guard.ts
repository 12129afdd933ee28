import type { NextFunction, Request, Response } from 'express';
import { HttpError } from './errors';

/**
 * Refuses requests that name another host (a foreign name that was pointed at this machine) or come from another
 * site's page. Requests without an Origin, from tools on this machine, pass.
 *
 * @param allowedHosts host names without port that this server answers to
 */
export function guard(allowedHosts: ReadonlySet<string>) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.headers.host ?? '';
    if (!hostIsAllowed(host, allowedHosts)) {
      throw new HttpError(
        403,
        'wrong-host',
        `this server does not answer to the host name ${host.slice(0, 80)}`,
      );
    }
    const { origin } = request.headers;
    if (origin !== undefined && !originFits(origin, host)) {
      throw new HttpError(403, 'wrong-origin', 'requests from pages of another site are refused');
    }
    next();
  };
}

/** Whether this server answers to a Host header. */
export function hostIsAllowed(host: string | undefined, allowedHosts: ReadonlySet<string>): boolean {
  return allowedHosts.has(hostName(host ?? ''));
}

/** Whether an Origin header is of a page of this server. */
export function originFits(origin: string, host: string | undefined): boolean {
  return originHost(origin) === host;
}

function hostName(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
