import type { NextFunction, Request, Response } from 'express';
import express from 'express';
import { HttpError } from './errors';

/** Largest JSON body. */
export const bodyLimitBytes = 16 * 1024 * 1024;

/** Reads any body as text, whatever its content type says, and parses it as JSON; no body is undefined. */
export const jsonBody = [
  express.text({ type: () => true, limit: bodyLimitBytes, defaultCharset: 'utf-8' }),
  (request: Request, _response: Response, next: NextFunction) => {
    const text: unknown = request.body;
    if (typeof text !== 'string' || text === '') request.body = undefined;
    else {
      try {
        request.body = JSON.parse(text.startsWith('\uFEFF') ? text.slice(1) : text) as unknown;
      } catch {
        throw new HttpError(400, 'not-json', 'the body is not JSON', [{ path: '', message: 'is not JSON' }]);
      }
    }
    next();
  },
];

/** Reads a body as bytes, up to a limit of its own. */
export const rawBody = (limitBytes: number) => [express.raw({ type: () => true, limit: limitBytes })];
