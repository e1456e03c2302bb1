import express, { type Request, type Router } from 'express';
import * as z from 'zod';
import { idSchema } from '../../src/core/piece/fields';
import { bodyBytes, jsonBytes } from '../http/bodies';
import { attach } from '../http/replies';
import type { Services } from '../services';

const exportId = (req: Request): string => z.uuid('is no id of an export').parse(req.params.id);

/** Files written from pieces. */
export function exportRoutes({ exports }: Services): Router {
  const router = express.Router();
  router.get('/exports', async (req, res) => {
    res.set('Cache-Control', 'no-store').json(await exports.list(idSchema.parse(req.query.piece)));
  });
  router.post('/exports', jsonBytes, async (req, res) => {
    res.status(202).json({ id: await exports.start(bodyBytes(req)) });
  });
  router.delete('/exports/:id', async (req, res) => {
    await exports.remove(exportId(req));
    res.json({ ok: true });
  });
  router.get('/exports/:id/files/:name', async (req, res) => {
    const name = z.string().max(300).parse(req.params.name);
    const root = await exports.folderOf(exportId(req), name);
    attach(res, name);
    res.sendFile(name, { root, dotfiles: 'allow' });
  });
  return router;
}
