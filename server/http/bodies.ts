import express, { type Request, type RequestHandler, type Response } from 'express';
import { createWriteStream } from 'node:fs';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem, sendProblem } from './problem';

export const MAX_DOCUMENT_BYTES = 64 * 1024 * 1024;

/**
 * Compressed bodies are refused: our client sends none, and a few kilobytes can expand to any size.
 */
const raw = express.raw({ type: 'application/json', limit: MAX_DOCUMENT_BYTES, inflate: false });

/** Reads a JSON body as bytes; the store’s thread parses it. */
export const jsonBytes: RequestHandler = (req, res, next) => {
  if (!req.is('application/json'))
    throw new Problem(415, 'The request is not understood', 'Send JSON. Nothing was changed.');
  raw(req, res, next);
};

/** The body that `jsonBytes` read; empty where there was none. */
export const bodyBytes = (req: Request): Uint8Array => (Buffer.isBuffer(req.body) ? req.body : new Uint8Array(0));

export interface Limit {
  readonly bytes: number;
  readonly title: string;
  readonly detail: string;
}

/**
 * Writes the body of a request to a file, up to a limit, whether or not the request states its length.
 * @param onBytes called after each chunk with the number of bytes so far
 * @throws Problem 413 beyond the limit, 415 for a compressed body; the caller deletes what was written
 */
export async function bodyToFile(
  req: Request,
  path: string,
  limit: Limit,
  onBytes: (bytes: number) => void = () => undefined,
): Promise<void> {
  const encoding = req.headers['content-encoding'];
  if (encoding && encoding !== 'identity') {
    throw new Problem(
      415,
      'The request is not understood',
      'A file is sent as it is, without Content-Encoding. Nothing was changed.',
    );
  }
  const tooLarge = (): Problem => new Problem(413, limit.title, limit.detail);
  if (Number(req.headers['content-length'] ?? 0) > limit.bytes) throw tooLarge();
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      onBytes(bytes);
      if (bytes > limit.bytes) done(tooLarge());
      else done(null, chunk);
    },
  });
  // The request stays open when this fails, so that a response can be sent.
  const file = createWriteStream(path);
  const aborted = new Promise<never>((_resolve, reject) => {
    req.once('close', () => {
      if (req.complete) return;
      const detail = 'Less of the file came than was announced. Nothing was changed.';
      reject(new Problem(400, 'The upload ended early', detail));
    });
  });
  aborted.catch(() => counted.destroy());
  req.pipe(counted);
  try {
    await Promise.race([pipeline(counted, file), aborted]);
  } finally {
    req.unpipe(counted);
  }
}

interface Watched {
  readonly res: Response;
  bytesRead: number;
  /** When the last byte came, or the answer was sent if that was before the end of the body. */
  since: number;
  answered: boolean;
}

/** Time for the client to read a response that was sent before the end of the body. */
const LINGER_MS = 3000;

/**
 * Ends requests whose body stalls. An upload may take any time while bytes keep arriving.
 * @param stallMs time without a byte after which a request is ended
 */
export class StallGuard {
  private readonly watched = new Map<Request, Watched>();
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(private readonly stallMs: number) {}

  readonly watch: RequestHandler = (req, res, next) => {
    if (req.headers['transfer-encoding'] !== undefined || Number(req.headers['content-length'] ?? 0) > 0) {
      this.watched.set(req, { res, bytesRead: req.socket.bytesRead, since: performance.now(), answered: false });
      req.once('close', () => this.watched.delete(req));
      this.timer ??= setInterval(() => this.sweep(), Math.min(1000, this.stallMs / 4));
    }
    next();
  };

  private sweep(): void {
    const now = performance.now();
    for (const [req, watched] of this.watched) {
      if (req.complete) this.watched.delete(req);
      else if (watched.res.writableEnded) this.linger(req, watched, now);
      else if (req.socket.bytesRead > watched.bytesRead || req.isPaused()) {
        watched.bytesRead = req.socket.bytesRead;
        watched.since = now;
      } else if (now - watched.since > this.stallMs) this.end(req, watched);
    }
    if (this.watched.size > 0 || !this.timer) return;
    clearInterval(this.timer);
    this.timer = null;
  }

  private linger(req: Request, watched: Watched, now: number): void {
    if (!watched.answered) {
      watched.answered = true;
      watched.since = now;
    } else if (now - watched.since > LINGER_MS) req.socket.destroy();
  }

  private end(req: Request, { res }: Watched): void {
    this.watched.delete(req);
    if (!res.headersSent) {
      res.set('Connection', 'close');
      sendProblem(
        res,
        new Problem(
          408,
          'Nothing more came',
          'The rest of the request did not arrive. Nothing was changed; send it again.',
        ),
      );
    }
    req.destroy();
  }
}
