import compression from 'compression';
import express, { type Express, type RequestHandler, type Router } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import pino from 'pino';
import { pinoHttp } from 'pino-http';
import { API } from '../src/core/api/contract';
import { StallGuard } from './http/bodies';
import { Problem, problemHandler } from './http/problem';
import { knownHostOnly, knownHosts, sameOriginOnly } from './http/requestOrigin';
import { OK, serve } from './http/serve';
import { apiDescription } from './openapi';
import { blockRoutes } from './routes/blocks';
import { exportRoutes } from './routes/exports';
import { pieceRoutes } from './routes/pieces';
import { soundRoutes } from './routes/sounds';
import type { Services } from './services';

export interface AppOptions {
  readonly services: Services;
  /** Folder of the built client; left out in tests of the API. */
  readonly client?: string;
  readonly quiet?: boolean;
  /** Names and addresses it is reached by, beside loopback. */
  readonly hosts?: readonly string[];
  /** A body that stops coming for so long is ended, in milliseconds. */
  readonly stallMs?: number;
}

const STALL_MS = 30_000;
const NAMED_BY_HASH = /[.-][0-9a-f]{32}\.[a-z0-9]+(\.(br|gz))?$/;

/** The whole server: the built client and its API. */
export function createApp({ services, client, quiet, hosts = [], stallMs = STALL_MS }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: pino({ level: quiet ? 'silent' : 'warn' }) }));
  app.use(securityHeaders());
  app.use(knownHostOnly(knownHosts(hosts)));
  app.use('/api', compression(), sameOriginOnly, new StallGuard(stallMs).watch, apiRoutes(services));
  if (client && existsSync(client)) {
    app.use(
      staticGzip(client, {
        enableBrotli: true,
        orderPreference: ['br', 'gz'],
        index: false,
        serveStatic: { setHeaders: cacheNamedForGood },
      }),
    );
    app.get('/{*splat}', (_req, res) => res.sendFile('index.html', { root: client, dotfiles: 'allow' }));
  }
  app.use(problemHandler);
  return app;
}

/** Every address of the API, under `/api`. */
export function apiRoutes(services: Services): Router {
  const router = express.Router();
  serve(router, API.health, () => OK);
  serve(router, API.describe, () => apiDescription());
  router.use(pieceRoutes(services), blockRoutes(services), soundRoutes(services), exportRoutes(services));
  router.use((_req, _res) => {
    throw new Problem(404, 'There is no such address', 'See /api/openapi.json for what there is.');
  });
  return router;
}

/** Files with a hash in their name never change; all others are revalidated each time. */
const cacheNamedForGood = (res: ServerResponse, path: string): void => {
  res.setHeader('Cache-Control', NAMED_BY_HASH.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');
};

/** Cross-origin isolation on every answer: shared memory between the page and its audio thread needs it. */
function securityHeaders(): RequestHandler {
  return helmet({
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
      },
    },
  });
}
