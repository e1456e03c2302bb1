import type { Request } from 'express';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type * as z from 'zod';
import type { StoredSound, UploadStatus } from '../src/core/api/schemas';
import { bodyToFile, type Limit } from './http/bodies';
import { Problem } from './http/problem';
import { decodedSchema, unpackedSchema, type Job } from './jobs/jobs';
import type { JobPool } from './jobs/jobPool';
import { readUnpacked } from './jobs/unpackArchive';
import type { SoundFiles } from './store/soundFiles';
import type { Store } from './store/storeClient';

const SOUND_LIMIT: Limit = {
  bytes: 600 * 1024 * 1024,
  title: 'This file is too large',
  detail: 'Up to 600 MB are taken. Nothing in your piece was changed; cut the file into parts.',
};
const ARCHIVE_LIMIT: Limit = {
  bytes: 4 * 1024 * 1024 * 1024,
  title: 'This archive is too large',
  detail: 'Up to 4 GB are taken. Nothing already stored was changed.',
};

type Work = <R>(job: Job, result: z.ZodType<R>) => Promise<R>;

interface Underway {
  received: number;
  job: Job | null;
}

/** Sounds and archives that people bring: received to a file, worked on by a job process, then stored. */
export class Uploads {
  private readonly underway = new Map<string, Underway>();

  constructor(
    private readonly store: Store,
    private readonly jobs: JobPool,
    private readonly sounds: SoundFiles,
  ) {}

  /** How far an upload has come; null when none of that id is under way. */
  status(id: string): UploadStatus | null {
    const upload = this.underway.get(id);
    if (!upload) return null;
    const ahead = upload.job ? this.jobs.ahead(upload.job) : 0;
    return {
      state: !upload.job ? 'receiving' : ahead > 0 ? 'waiting' : 'working',
      received: upload.received,
      ahead: Math.max(0, ahead - 1),
    };
  }

  /**
   * Takes a sound of any kind that is read.
   * @param id under which its progress can be queried; null for none
   * @throws Problem saying what is wrong with it
   */
  async receiveSound(req: Request, id: string | null, name: string): Promise<StoredSound> {
    return this.receive(req, id, SOUND_LIMIT, async (from, work) => {
      const to = `${from}.wav`;
      try {
        const { hash, info } = await work({ kind: 'decode', from, to }, decodedSchema);
        return await this.sounds.adopt(to, hash, { ...info, name });
      } catch (error) {
        throw keeping(error, 'Nothing in your piece was changed.');
      } finally {
        await rm(to, { force: true });
      }
    });
  }

  /**
   * Brings a piece in from an archive: all of it is looked at before anything is stored.
   * @returns the id of the piece
   */
  async receiveArchive(req: Request, id: string | null): Promise<string> {
    return this.receive(req, id, ARCHIVE_LIMIT, async (from, work) => {
      const folder = `${from}.unpacked`;
      try {
        await mkdir(folder);
        const { sounds } = await work({ kind: 'unpack', from, to: folder }, unpackedSchema);
        const { piece, history } = await readUnpacked(folder);
        // Copies: what goes to the store's thread is handed over.
        await this.store.checkArchived(new Uint8Array(piece), history && new Uint8Array(history));
        for (const { hash, info } of sounds) await this.sounds.adopt(join(folder, hash), hash, info);
        return await this.store.bringInPiece(piece, history);
      } finally {
        await rm(folder, { force: true, recursive: true });
      }
    });
  }

  /**
   * Receives the body to a file, has it worked on, and removes it, whatever comes of it. The work ends when the asker
   * goes.
   */
  private async receive<T>(
    req: Request,
    id: string | null,
    limit: Limit,
    act: (path: string, work: Work) => Promise<T>,
  ): Promise<T> {
    const upload: Underway = { received: 0, job: null };
    if (id && this.underway.has(id))
      throw new Problem(409, 'That upload is under way', 'Another one has this id. Nothing was changed.');
    if (id) this.underway.set(id, upload);
    const gone = new AbortController();
    req.res?.once('close', () => gone.abort());
    const path = this.sounds.newArrival();
    try {
      await bodyToFile(req, path, limit, (bytes) => (upload.received = bytes));
      return await act(path, (job, result) => {
        upload.job = job;
        return this.jobs.run(job, result, gone.signal);
      });
    } finally {
      if (id) this.underway.delete(id);
      await rm(path, { force: true });
    }
  }
}

function keeping(error: unknown, kept: string): unknown {
  return error instanceof Problem && error.status === 422
    ? new Problem(422, error.title, `${error.detail} ${kept}`)
    : error;
}
