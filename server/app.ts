import express, { type Express, type Request } from 'express';
import compression from 'compression';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import pino from 'pino';
import { pinoHttp } from 'pino-http';
import * as z from 'zod';
import { readWav } from '../src/core/formats/readWav';
import { writeWav } from '../src/core/formats/writeWav';
import { blockSchema } from '../src/core/piece/block';
import { pieceSchema } from '../src/core/piece/piece';
import { BlockStore } from './blockStore';
import type { Db } from './database';
import { apiDescription } from './openapi';
import { exportOrderSchema } from '../src/core/files/order';
import { readArchive, writeArchive } from './archive';
import { ExportStore } from './exportStore';
import { PieceStore, saveSchema } from './pieceStore';
import { Problem, problemHandler } from './problem';
import { knownHostOnly, knownHosts, sameOriginOnly } from './requestOrigin';
import { SoundStore, type WriteWhole } from './soundStore';

export interface AppOptions {
  readonly db: Db;
  readonly dataFolder: string;
  /** Folder of the built client; left out in tests of the API. */
  readonly client?: string;
  /** Folder of the built workers. */
  readonly built?: string;
  readonly write?: WriteWhole;
  readonly quiet?: boolean;
  /** Names and addresses it is reached by, beside loopback. */
  readonly hosts?: readonly string[];
}

const LARGEST_UPLOAD = 600 * 1024 * 1024;
const LARGEST_DOCUMENT = '64mb';
const LARGEST_ARCHIVE = 4 * 1024 * 1024 * 1024;
const NAMED_BY_HASH = /[.-][0-9a-f]{32}\.[a-z0-9]+(\.(br|gz))?$/;
const idSchema = z.uuid('is no id of an export');
const hashSchema = z.string().regex(/^[0-9a-f]{64}$/, 'is no SHA-256');
const fileQuery = z.object({ bits: z.enum(['16', '24', '32f']).default('32f'), name: z.string().max(200).default('print') });

/** The whole server: the built client and its API. */
export function createApp(options: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: pino({ level: options.quiet ? 'silent' : 'warn' }) }));
  app.use(securityHeaders());
  app.use(knownHostOnly(knownHosts(options.hosts ?? [])));
  app.use('/api', compression(), sameOriginOnly, apiRoutes(options));
  if (options.client && existsSync(options.client)) {
    const client = options.client;
    app.use(staticGzip(client, { enableBrotli: true, orderPreference: ['br', 'gz'], index: false, serveStatic: { setHeaders: cacheNamedForGood } }));
    app.get('/{*splat}', (_req, res) => res.sendFile(join(client, 'index.html')));
  }
  app.use(problemHandler);
  return app;
}

/** What bears its own hash in its name never changes; all else is asked for again each time. */
const cacheNamedForGood = (res: ServerResponse, path: string): void => {
  res.setHeader('Cache-Control', NAMED_BY_HASH.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');
};

/** Cross-origin isolation on every answer: shared memory between the page and its audio thread needs it. */
function securityHeaders(): express.RequestHandler {
  return helmet({
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"], scriptSrc: ["'self'", "'wasm-unsafe-eval'"], styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'], fontSrc: ["'self'", 'data:'], workerSrc: ["'self'", 'blob:'], connectSrc: ["'self'"],
        objectSrc: ["'none'"], frameAncestors: ["'none'"],
      },
    },
  });
}

function apiRoutes({ db, dataFolder, write, built }: AppOptions): express.Router {
  const router = express.Router();
  const pieces = new PieceStore(db);
  const blocks = new BlockStore(db);
  const sounds = new SoundStore(db, dataFolder, write, built);
  const json = express.json({ limit: LARGEST_DOCUMENT });
  router.use(exportRoutes(pieces, sounds, new ExportStore(db, dataFolder, built), dataFolder, json));

  router.get('/health', (_req, res) => void res.json({ ok: true }));
  router.get('/openapi.json', (_req, res) => void res.json(apiDescription()));
  router.get('/pieces', (_req, res) => void res.json(pieces.list()));
  router.post('/pieces', json, (req, res) => {
    const piece = pieceSchema.parse(req.body);
    const revision = pieces.create(piece);
    res.status(201).set('ETag', `"${revision}"`).json({ revision });
  });
  router.get('/pieces/:id', (req, res) => {
    const stored = pieces.read(req.params.id);
    res.set('ETag', `"${stored.revision}"`).set('Cache-Control', 'no-store').json(stored);
  });
  router.put('/pieces/:id', json, (req, res) => {
    const id = z.string().parse(req.params.id);
    const save = saveSchema.parse(req.body);
    if (save.piece.id !== id) throw new Problem(400, 'The request is not understood', 'The piece’s id is not that of the address. Nothing was changed.');
    const revision = pieces.save(id, baseRevision(req), save);
    res.set('ETag', `"${revision}"`).json({ revision });
  });
  router.post('/sounds', async (req, res) => {
    const name = z.string().trim().min(1).max(120).parse(req.query.name);
    if (Number(req.headers['content-length'] ?? 0) > LARGEST_UPLOAD) {
      throw new Problem(413, 'This file is too large', 'Up to 600 MB are taken. Nothing in your piece was changed; cut the file into parts.');
    }
    res.status(201).json(await sounds.receive(req, name));
  });
  router.get('/blocks', (_req, res) => void res.json(blocks.list()));
  router.post('/blocks', json, (req, res) => {
    blocks.create(blockSchema.parse(req.body));
    res.status(201).json({ ok: true });
  });
  router.delete('/blocks/:id', (req, res) => {
    blocks.remove(req.params.id);
    res.json({ ok: true });
  });
  router.get('/sounds/:hash', (req, res) => {
    const hash = hashSchema.parse(req.params.hash);
    sounds.read(hash);
    res.set('Cache-Control', 'public, max-age=31536000, immutable').type('audio/wav').sendFile(sounds.pathOf(hash), { root: '/' });
  });
  router.get('/sounds/:hash/file', async (req, res) => {
    const hash = hashSchema.parse(req.params.hash);
    const { bits, name } = fileQuery.parse(req.query);
    sounds.read(hash);
    const kept = await readFile(sounds.pathOf(hash));
    const bytes = bits === '32f' ? kept : writeWav(readWav(kept), bits);
    res.type('audio/wav').attachment(`${name}.wav`).send(Buffer.from(bytes));
  });
  router.use((_req, _res) => {
    throw new Problem(404, 'There is no such address', 'See /api/openapi.json for what there is.');
  });
  return router;
}

/** Files written from pieces, and whole pieces as archives. */
function exportRoutes(pieces: PieceStore, sounds: SoundStore, exports: ExportStore, dataFolder: string, json: express.RequestHandler): express.Router {
  const router = express.Router();
  router.get('/exports', (req, res) => void res.set('Cache-Control', 'no-store').json(exports.list(z.string().parse(req.query.piece))));
  router.post('/exports', json, (req, res) => {
    const order = exportOrderSchema.parse(req.body);
    res.status(202).json({ id: exports.start(pieces.read(order.piece).piece, order) });
  });
  router.delete('/exports/:id', (req, res) => {
    exports.remove(idSchema.parse(req.params.id));
    res.json({ ok: true });
  });
  router.get('/exports/:id/files/:name', (req, res) => {
    const { name } = req.params;
    const id = idSchema.parse(req.params.id);
    res.attachment(name).sendFile(exports.pathOf(id, name), { root: '/' });
  });
  router.get('/pieces/:id/archive', (req, res, next) => {
    const { id } = req.params;
    const { name } = pieces.read(id).piece;
    const zip = writeArchive(id, pieces, sounds);
    zip.on('error', next);
    res.type('application/zip').attachment(`${name}.zip`);
    zip.pipe(res);
  });
  router.post('/archives', async (req, res) => {
    if (Number(req.headers['content-length'] ?? 0) > LARGEST_ARCHIVE) throw new Problem(413, 'This archive is too large', 'Up to 4 GB are taken. Nothing already stored was changed.');
    res.status(201).json({ id: await readArchive(req, join(dataFolder, 'arriving'), pieces, sounds) });
  });
  return router;
}

function baseRevision(req: Request): number {
  const match = /^"(\d+)"$/.exec(req.get('If-Match') ?? '');
  if (!match) throw new Problem(428, 'Which revision?', 'A save names the revision it is based on in If-Match. Nothing was changed.');
  return Number(match[1]);
}
