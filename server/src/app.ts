import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { coreVersion } from '@torvek/core/design';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { calculatorRoutes } from './calculators/routes';
import { entryRoutes } from './entries/routes';
import { evaluateRoutes } from './evaluate/routes';
import { fileRoutes } from './files/routes';
import { jsonBody, rawBody } from './http/body';
import { HttpError, notFound } from './http/errors';
import { guard } from './http/guard';
import { plainError } from './http/plain-error';
import { rateLimits } from './http/limits';
import { mount, route, type Route } from './http/route';
import { instrumentRoutes } from './instruments/routes';
import { jobRoutes } from './jobs/routes';
import { libraryRoutes } from './library/routes';
import { peopleRoutes } from './people/routes';
import type { Rooms } from './rooms';
import { sheetRoutes } from './sheets/routes';
import { standInRoutes } from './stand-ins/routes';
import { takeAwayRoutes } from './take-away/routes';

export interface AppOptions {
  rooms: Rooms;
  logger: Logger;
  allowedHosts: ReadonlySet<string>;
  /** Folder of the built web app; null: the API alone. */
  webFolder: string | null;
  /** Proxies in front that are believed who asks and whether it came over TLS. */
  trustedProxies?: number;
  /** No limits on requests per minute: for tests that send many. */
  unlimited?: boolean;
}

/** The whole route table. */
export function routeTable(rooms: Rooms): Route[] {
  const { jobs, people, sessions, instruments, library } = rooms;
  return [
    route({
      method: 'get',
      path: '/health',
      role: 'public',
      handle: () => ({ status: 'ok', core: coreVersion }),
    }),
    ...calculatorRoutes,
    ...evaluateRoutes,
    ...jobRoutes(rooms),
    ...entryRoutes(rooms),
    ...peopleRoutes(people, sessions),
    ...instrumentRoutes(instruments),
    ...libraryRoutes(library),
    ...standInRoutes(jobs),
    ...sheetRoutes(rooms),
    ...fileRoutes(rooms),
    ...takeAwayRoutes(rooms),
  ];
}

/** The Express application: guard, API, built web app, errors in one shape. */
export function createApp({
  rooms,
  logger,
  allowedHosts,
  webFolder,
  trustedProxies = 0,
  unlimited = false,
}: AppOptions): express.Express {
  const app = express();
  app.disable('x-powered-by');
  if (trustedProxies > 0) app.set('trust proxy', trustedProxies);
  // One way to write each path: limits and routes cannot disagree about another.
  app.enable('case sensitive routing');
  app.enable('strict routing');
  app.use(helmet({ contentSecurityPolicy: { directives: contentPolicy }, strictTransportSecurity: false }));
  app.use(guard(allowedHosts));

  const api = express.Router({ caseSensitive: true, strict: true });
  if (!unlimited) api.use(...rateLimits());
  mount(api, routeTable(rooms), rooms.sessions, { json: jsonBody, raw: rawBody });
  api.use(() => {
    throw notFound('this route');
  });
  app.use('/api', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', compression({ filter: isText, threshold: compressedFromBytes }), api);

  if (webFolder !== null && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use((error: unknown, request: Request, response: Response, _next: NextFunction) => {
    const known = asHttpError(error);
    if (known.status >= 500) logger.error({ error: plainError(error), path: request.path }, 'request failed');
    else if (noteworthy.has(known.code))
      logger.warn({ code: known.code, path: request.path, from: request.ip }, 'request refused');
    response.status(known.status).json(known.body());
  });
  return app;
}

/** What is shorter is not worth it. */
const compressedFromBytes = 4096;
/** Archives and pictures are compressed as they are. */
const isText = (_request: Request, response: Response) =>
  /^(application\/json|text\/)/.test(String(response.getHeader('content-type') ?? ''));

const contentPolicy = {
  defaultSrc: ["'self'"],
  imgSrc: ["'self'", 'data:'],
  styleSrc: ["'self'"],
  fontSrc: ["'self'"],
  connectSrc: ["'self'"],
  workerSrc: ["'self'", 'blob:'],
  upgradeInsecureRequests: null,
};

/** What never stands in a log, should somebody log a request by mistake. */
export const redactedPaths = ['password', 'current', 'next', 'cookie', 'token'].flatMap((name) => [
  name,
  `*.${name}`,
  `*.*.${name}`,
]);

/** Refusals that may be somebody trying doors: logged, without what was sent. */
const noteworthy = new Set([
  'wrong-password',
  'too-many-attempts',
  'too-many-requests',
  'wrong-host',
  'wrong-origin',
  'no-witness',
  'role-too-low',
]);

function serveWeb(app: express.Express, folder: string): void {
  // As the build compressed them; plain HTTP asks for gzip, TLS for brotli.
  app.use(
    '/assets',
    expressStaticGzip(join(folder, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: { immutable: true, maxAge: '1y' },
    }),
  );
  app.use(express.static(folder, { index: false }));
  app.get(/^\/(?!api\/|assets\/)/, (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}

/** Turns whatever was thrown into one of our answers; what nobody foresaw is a 500 without details. */
function asHttpError(error: unknown): HttpError {
  if (error instanceof HttpError) return error;
  const { type, status, limit } = error as { type?: string; status?: number; limit?: number };
  if (type === 'entity.too.large') {
    return new HttpError(
      413,
      'too-large',
      `the body is larger than ${(limit ?? 0) / 1024 / 1024} MB (${limit ?? 0} bytes)`,
    );
  }
  // Two of them came at once, or an id was made twice.
  if ((error as { code?: unknown }).code === '23505')
    return new HttpError(409, 'taken', 'this is there already, under the same id or name');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new HttpError(status, 'bad-request', 'the request cannot be read');
  return new HttpError(500, 'internal', 'something failed on the server; its log says what');
}
