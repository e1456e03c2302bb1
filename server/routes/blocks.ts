import express, { type Router } from 'express';
import { idSchema } from '../../src/core/piece/fields';
import { bodyBytes, jsonBytes } from '../http/bodies';
import { sendJson } from '../http/replies';
import type { Services } from '../services';

/** Chains stored under a name, for any piece. */
export function blockRoutes({ store }: Services): Router {
  const router = express.Router();
  router.get('/blocks', async (_req, res) => sendJson(res, await store.listBlocks()));
  router.post('/blocks', jsonBytes, async (req, res) => {
    await store.createBlock(bodyBytes(req));
    res.status(201).json({ ok: true });
  });
  router.delete('/blocks/:id', async (req, res) => {
    await store.removeBlock(idSchema.parse(req.params.id));
    res.json({ ok: true });
  });
  return router;
}
