import express, { type Request, type Router } from 'express';
import * as z from 'zod';
import { idSchema } from '../../src/core/piece/fields';
import { writeArchive } from '../archive';
import { bodyBytes, jsonBytes } from '../http/bodies';
import { Problem } from '../http/problem';
import { attach, sendJson } from '../http/replies';
import type { Services } from '../services';

const idOf = (req: Request): string => idSchema.parse(req.params.id);

/** Pieces, each save a revision; and whole pieces as archives. */
export function pieceRoutes({ store, sounds, uploads }: Services): Router {
  const router = express.Router();
  router.get('/pieces', async (_req, res) => void res.json(await store.listPieces()));
  router.post('/pieces', jsonBytes, async (req, res) => {
    const revision = await store.createPiece(bodyBytes(req));
    res.status(201).set('ETag', `"${revision}"`).json({ revision });
  });
  router.get('/pieces/:id', async (req, res) => {
    const { revision, body } = await store.readPiece(idOf(req));
    res.set('ETag', `"${revision}"`).set('Cache-Control', 'no-store');
    sendJson(res, body);
  });
  router.put('/pieces/:id', jsonBytes, async (req, res) => {
    const revision = await store.savePiece(idOf(req), baseRevision(req), bodyBytes(req));
    res.set('ETag', `"${revision}"`).json({ revision });
  });
  router.delete('/pieces/:id', async (req, res) => {
    await store.removePiece(idOf(req));
    res.json({ ok: true });
  });
  router.post('/pieces/:id/restore', async (req, res) => {
    await store.restorePiece(idOf(req));
    res.json({ ok: true });
  });
  router.get('/pieces/:id/document', async (req, res) => {
    const { name, text } = await store.pieceDocument(idOf(req));
    attach(res, `${name}.json`);
    res.set('Cache-Control', 'no-store').type('application/json').send(text);
  });
  router.post('/pieces/:id/recover', async (req, res) => {
    res.status(201).json({ id: await store.recoverPiece(idOf(req)) });
  });
  router.get('/pieces/:id/archive', async (req, res, next) => {
    const { name, zip } = await writeArchive(idOf(req), store, sounds);
    zip.on('error', next);
    attach(res, `${name}.zip`);
    res.type('application/zip');
    zip.pipe(res);
  });
  router.post('/archives', async (req, res) => {
    res.status(201).json({ id: await uploads.receiveArchive(req, uploadId(req)) });
  });
  return router;
}

/** By which the state of an upload can be asked for while it goes on. */
export const uploadId = (req: Request): string | null =>
  z
    .uuid()
    .nullable()
    .parse(req.query.upload ?? null);

function baseRevision(req: Request): number {
  const match = /^"(\d{1,15})"$/.exec(req.get('If-Match') ?? '');
  if (!match)
    throw new Problem(
      428,
      'Which revision?',
      'A save names the revision it is based on in If-Match. Nothing was changed.',
    );
  return Number(match[1]);
}
