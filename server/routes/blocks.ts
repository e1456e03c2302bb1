import express, { type Router } from 'express';
import { API } from '../../src/core/api/contract';
import { bodyBytes } from '../http/bodies';
import { JsonBytes, OK, serve } from '../http/serve';
import type { Services } from '../services';

/** Chains stored under a name, for any piece. */
export function blockRoutes({ store }: Services): Router {
  const router = express.Router();
  serve(router, API.listBlocks, async () => new JsonBytes(await store.listBlocks()));
  serve(router, API.saveBlock, async ({ req }) => {
    await store.createBlock(bodyBytes(req));
    return OK;
  });
  serve(router, API.removeBlock, async ({ params }) => {
    await store.removeBlock(params.id);
    return OK;
  });
  return router;
}
