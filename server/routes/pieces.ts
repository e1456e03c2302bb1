import express, { type Request, type Router } from 'express';
import { pipeline } from 'node:stream/promises';
import { API } from '../../src/core/api/contract';
import { writeArchive } from '../archive';
import { bodyBytes } from '../http/bodies';
import { Problem } from '../http/problem';
import { attach } from '../http/replies';
import { JsonBytes, OK, serve } from '../http/serve';
import type { Services } from '../services';

/** Pieces, each save a revision; and whole pieces as archives. */
export function pieceRoutes({ store, sounds, uploads }: Services): Router {
  const router = express.Router();
  serve(router, API.listPieces, () => store.listPieces());
  serve(router, API.listBin, () => store.listBin());
  serve(router, API.createPiece, async ({ req, res }) => {
    const revision = await store.createPiece(bodyBytes(req));
    res.set('ETag', `"${revision}"`);
    return { revision };
  });
  serve(router, API.readPiece, async ({ params, res }) => {
    const { revision, body } = await store.readPiece(params.id);
    res.set('ETag', `"${revision}"`).set('Cache-Control', 'no-store');
    return new JsonBytes(body);
  });
  serve(router, API.savePiece, async ({ params, req, res }) => {
    const revision = await store.savePiece(params.id, baseRevision(req), bodyBytes(req));
    res.set('ETag', `"${revision}"`);
    return { revision };
  });
  serve(router, API.removePiece, async ({ params }) => {
    await store.removePiece(params.id);
    return OK;
  });
  serve(router, API.restorePiece, async ({ params }) => {
    await store.restorePiece(params.id);
    return OK;
  });
  serve(router, API.readDocument, async ({ params, res }) => {
    const { name, text } = await store.pieceDocument(params.id);
    attach(res, `${name}.json`);
    res.set('Cache-Control', 'no-store').type('application/json').send(text);
  });
  serve(router, API.recoverPiece, async ({ params }) => ({ id: await store.recoverPiece(params.id) }));
  serve(router, API.writeArchive, async ({ params, res }) => {
    const { name, zip } = await writeArchive(params.id, store, sounds);
    attach(res, `${name}.zip`);
    res.type('application/zip');
    await pipeline(zip, res);
  });
  serve(router, API.readArchive, async ({ query, req }) => ({
    id: await uploads.receiveArchive(req, query.upload ?? null),
  }));
  return router;
}

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
