import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { ByteSource } from '../../src/core/formats/byteSource';

/** Read in one piece, so that many small parts need no system call each. */
const WINDOW = 1 << 16;

/** A file on the disk as a source of bytes, through one buffer that is used again for every read. */
export class FileSource implements ByteSource {
  readonly length: number;
  private readonly file: number;
  private buffer = Buffer.alloc(WINDOW);
  private from = 0;
  private filled = 0;

  constructor(path: string) {
    this.file = openSync(path, 'r');
    this.length = fstatSync(this.file).size;
  }

  read(offset: number, length: number): Uint8Array {
    if (offset < this.from || offset + length > this.from + this.filled) this.fill(offset, length);
    return this.buffer.subarray(offset - this.from, Math.min(this.filled, offset - this.from + length));
  }

  private fill(offset: number, length: number): void {
    if (length > this.buffer.length) this.buffer = Buffer.alloc(length);
    this.from = offset;
    this.filled = 0;
    while (this.filled < this.buffer.length) {
      const n = readSync(this.file, this.buffer, this.filled, this.buffer.length - this.filled, offset + this.filled);
      if (n === 0) return;
      this.filled += n;
    }
  }

  close(): void {
    closeSync(this.file);
  }
}
