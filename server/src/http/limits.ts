import type { Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { HttpError } from './errors';

const minuteMs = 60_000;

/** A path as the routes know it, should somebody write it otherwise. */
const plainPath = (path: string) =>
  path
    .toLowerCase()
    .replace(/\/{2,}/g, '/')
    .replace(/(?<=.)\/$/, '');

/** Calculators and health answer everyone as often as they ask. */
const isFree = (path: string) => path === '/health' || path === '/calc' || path.startsWith('/calc/');
/** Whatever takes a password. */
const isSignIn = (path: string, method: string) =>
  method === 'POST' && ['/session', '/session/demo', '/owner', '/password'].includes(path);
const isHeavy = (path: string) =>
  /\/(export|verify)$/.test(path) ||
  path.startsWith('/import') ||
  ['/backup', '/backups', '/restore', '/papers/check'].includes(path);

const limit = (perMinute: number, applies: (path: string, method: string) => boolean) =>
  rateLimit({
    windowMs: minuteMs,
    limit: perMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skip: ({ path, method }: Request) => !applies(plainPath(path), method),
    handler: (_request, _response, next) =>
      next(new HttpError(429, 'too-many-requests', 'too many requests from here; wait a minute')),
  });

/** Whole designs by anybody: each takes a thread for a while. */
const isEvaluation = (path: string) => path === '/evaluate';

/** Per address and minute: sign-ins, heavy work, whole designs, everything else but the calculators. */
export const rateLimits = () => [
  limit(60, isSignIn),
  limit(120, isHeavy),
  limit(1200, isEvaluation),
  limit(12_000, (path) => !isFree(path)),
];
