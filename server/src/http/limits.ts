import type { Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { HttpError } from './errors';

const minuteMs = 60_000;

/** Calculators and health answer everyone as often as they ask. */
const isFree = ({ path }: Request) => path === '/health' || path === '/calc' || path.startsWith('/calc/');
const isSignIn = ({ path, method }: Request) =>
  method === 'POST' && (path === '/session' || path === '/session/demo' || path === '/owner');
const isHeavy = ({ path }: Request) =>
  /\/(export|verify)$/.test(path) || path.startsWith('/import') || path === '/backup' || path === '/restore';

const limit = (perMinute: number, applies: (request: Request) => boolean) =>
  rateLimit({
    windowMs: minuteMs,
    limit: perMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skip: (request) => !applies(request),
    handler: (_request, _response, next) =>
      next(new HttpError(429, 'too-many-requests', 'too many requests from here; wait a minute')),
  });

/** Per address and minute: sign-ins, heavy work, everything else but the calculators. */
export const rateLimits = () => [
  limit(60, isSignIn),
  limit(120, isHeavy),
  limit(12_000, (request) => !isFree(request)),
];
