import express, { type Router } from 'express';
import { pipeline } from 'node:stream/promises';
import { API } from '../../src/core/api/contract';
import { bodyBytes } from '../http/bodies';
import { attach } from '../http/replies';
import { OK, serve } from '../http/serve';
import { zipFiles } from '../exports/zipFiles';
import type { Services } from '../services';

/** Files written from pieces. */
export function exportRoutes({ exports }: Services): Router {
  const router = express.Router();
  serve(router, API.listExports, ({ query, res }) => {
    res.set('Cache-Control', 'no-store');
    return exports.list(query.piece);
  });
  serve(router, API.startExport, async ({ req }) => ({ id: await exports.start(bodyBytes(req)) }));
  serve(router, API.removeExport, async ({ params }) => {
    await exports.remove(params.id);
    return OK;
  });
  serve(router, API.readExportArchive, async ({ params: { id }, res }) => {
    const { name, files } = await exports.filesOf(id);
    attach(res, `${name}.zip`);
    res.type('application/zip');
    await pipeline(zipFiles(files), res);
  });
  serve(router, API.readExportFile, async ({ params: { id, name }, res }) => {
    const root = await exports.folderOf(id, name);
    attach(res, name);
    res.sendFile(name, { root, dotfiles: 'allow' });
  });
  return router;
}
