import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ExportQueue } from './exports/exportQueue';
import { JobPool } from './jobs/jobPool';
import { SoundFiles } from './store/soundFiles';
import { openStore, type Store } from './store/storeClient';
import { Uploads } from './uploads';

export interface ServiceOptions {
  readonly dataFolder: string;
  /** Folder of the built programs of threads and processes: made by `npm run build:rt`. */
  readonly built: string;
  /** Jobs and exports at once; as many as there are cores when left out. */
  readonly size?: number;
  /** A job without a message for so long is ended, in milliseconds. */
  readonly jobStallMs?: number;
  /** Pages that the database may grow to. For tests of a full disk. */
  readonly maxPages?: number;
  /** Heap of the store's thread, in MB. For tests of its limit. */
  readonly maxHeapMb?: number;
  readonly onError?: (message: string) => void;
}

/** What the routes work with. */
export interface Services {
  readonly store: Store;
  readonly jobs: JobPool;
  /** Makes the demo pieces: work of our own, which may take more memory and time than what comes from outside. */
  readonly demoJobs: JobPool;
  readonly sounds: SoundFiles;
  readonly exports: ExportQueue;
  readonly uploads: Uploads;
  readonly close: () => Promise<void>;
}

/** Folder of the SQL files that make the database. */
export const MIGRATIONS = join(__dirname, 'store', 'migrations');

/**
 * Opens a data folder. It has to be held by `lockFolder`: what an earlier server left half done is cleared away here.
 * @throws UnusableDatabase
 */
export async function openServices(options: ServiceOptions): Promise<Services> {
  const { dataFolder, built, maxPages, maxHeapMb, onError, size = Math.max(1, availableParallelism()) } = options;
  const program = (name: string): string => {
    const path = join(built, `${name}.cjs`);
    if (!existsSync(path)) throw new Error(`${path} is missing. Make it with: npm run build:rt`);
    return path;
  };
  const store = await openStore({
    dataFolder,
    migrations: MIGRATIONS,
    program: program('store.worker'),
    maxPages,
    maxHeapMb,
    onError,
  });
  const jobs = new JobPool({ program: program('job.process'), size, stallMs: options.jobStallMs });
  const demoJobs = new JobPool({ program: program('job.process'), size: 1, stallMs: 60_000, maxRssMb: 700 });
  const sounds = new SoundFiles(store, jobs, dataFolder);
  const exports = new ExportQueue({
    store,
    dataFolder,
    soundsFolder: sounds.folder,
    program: program('export.worker'),
    size,
  });
  return {
    store,
    jobs,
    demoJobs,
    sounds,
    exports,
    uploads: new Uploads(store, jobs, sounds),
    close: async () => {
      jobs.close();
      demoJobs.close();
      await exports.close();
      await store.close();
    },
  };
}
