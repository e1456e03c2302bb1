import express, { type Router } from 'express';
import { pipeline } from 'node:stream/promises';
import { API } from '../../src/core/api/contract';
import { attach } from '../http/replies';
import { Problem } from '../http/problem';
import { serve } from '../http/serve';
import type { Services } from '../services';
import { wavDownload } from '../store/wavDownload';

/** Sounds, by the SHA-256 of what is stored. */
export function soundRoutes({ sounds, uploads }: Services): Router {
  const router = express.Router();
  serve(router, API.uploadSound, ({ query, req }) => uploads.receiveSound(req, query.upload ?? null, query.name));
  serve(router, API.uploadStatus, ({ params, res }) => {
    const status = uploads.status(params.id);
    if (!status) throw new Problem(404, 'There is no such upload', 'It ended, or has not begun.');
    res.set('Cache-Control', 'no-store');
    return status;
  });
  serve(router, API.readSound, async ({ params: { hash }, res }) => {
    await sounds.read(hash);
    res.set('Cache-Control', 'public, max-age=31536000, immutable').type('audio/wav');
    res.sendFile(sounds.nameOf(hash), { root: sounds.folder, dotfiles: 'allow' });
  });
  serve(router, API.checkSound, async ({ params, res }) => {
    const gone = new AbortController();
    res.once('close', () => gone.abort());
    res.set('Cache-Control', 'no-store');
    return { intact: await sounds.isIntact(params.hash, gone.signal) };
  });
  serve(router, API.downloadSound, async ({ params, query: { bits, name }, res }) => {
    const sound = await sounds.read(params.hash);
    const { length, stream } = wavDownload(sounds.pathOf(sound.hash), sound, bits);
    attach(res, `${name}.wav`);
    res.type('audio/wav').set('Content-Length', String(length));
    await pipeline(stream, res);
  });
  serve(router, API.readStorage, ({ res }) => {
    res.set('Cache-Control', 'no-store');
    return sounds.use();
  });
  serve(router, API.clearStorage, () => sounds.removeUnused());
  return router;
}
