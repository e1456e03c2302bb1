import express, { type Request, type Router } from 'express';
import { pipeline } from 'node:stream/promises';
import * as z from 'zod';
import { hashSchema, nameSchema } from '../../src/core/piece/fields';
import { attach } from '../http/replies';
import { Problem } from '../http/problem';
import type { Services } from '../services';
import { wavDownload } from '../store/wavDownload';
import { uploadId } from './pieces';

const fileQuery = z.object({ bits: z.enum(['16', '24', '32f']).default('32f'), name: nameSchema.default('print') });

const hashOf = (req: Request): string => hashSchema.parse(req.params.hash);

/** Sounds, by the SHA-256 of what is stored. */
export function soundRoutes({ sounds, uploads }: Services): Router {
  const router = express.Router();
  router.post('/sounds', async (req, res) => {
    const name = nameSchema.parse(req.query.name);
    res.status(201).json(await uploads.receiveSound(req, uploadId(req), name));
  });
  router.get('/uploads/:id', (req, res) => {
    const status = uploads.status(z.uuid().parse(req.params.id));
    if (!status) throw new Problem(404, 'There is no such upload', 'It ended, or has not begun.');
    res.set('Cache-Control', 'no-store').json(status);
  });
  router.get('/sounds/:hash', async (req, res) => {
    const hash = hashOf(req);
    await sounds.read(hash);
    res.set('Cache-Control', 'public, max-age=31536000, immutable').type('audio/wav');
    res.sendFile(sounds.nameOf(hash), { root: sounds.folder, dotfiles: 'allow' });
  });
  router.get('/sounds/:hash/check', async (req, res) => {
    const gone = new AbortController();
    res.once('close', () => gone.abort());
    res.set('Cache-Control', 'no-store').json({ intact: await sounds.isIntact(hashOf(req), gone.signal) });
  });
  router.get('/sounds/:hash/file', async (req, res) => {
    const { bits, name } = fileQuery.parse(req.query);
    const sound = await sounds.read(hashOf(req));
    const { length, stream } = wavDownload(sounds.pathOf(sound.hash), sound, bits);
    attach(res, `${name}.wav`);
    res.type('audio/wav').set('Content-Length', String(length));
    await pipeline(stream, res);
  });
  return router;
}
