import { closeSync, ftruncateSync, fsyncSync, openSync, readSync, writeSync } from 'node:fs';

/** Size of the write buffer. */
const BUFFER_BYTES = 1 << 20;

/** A file that is appended to through a buffer, and of which any part can be overwritten. */
export class GrowingFile {
  private readonly file: number;
  private readonly buffer = Buffer.alloc(BUFFER_BYTES);
  private filled = 0;
  private written = 0;

  constructor(path: string) {
    this.file = openSync(path, 'w+');
  }

  get length(): number {
    return this.written + this.filled;
  }

  append(bytes: Uint8Array): void {
    if (this.filled + bytes.length > BUFFER_BYTES) this.flush();
    if (bytes.length > BUFFER_BYTES) {
      this.put(bytes, this.written);
      this.written += bytes.length;
      return;
    }
    this.buffer.set(bytes, this.filled);
    this.filled += bytes.length;
  }

  private flush(): void {
    this.put(this.buffer.subarray(0, this.filled), this.written);
    this.written += this.filled;
    this.filled = 0;
  }

  private put(bytes: Uint8Array, at: number): void {
    for (let done = 0; done < bytes.length;) done += writeSync(this.file, bytes, done, bytes.length - done, at + done);
  }

  /** Overwrites bytes at a position. */
  overwrite(bytes: Uint8Array, at: number): void {
    this.flush();
    this.put(bytes, at);
  }

  /** Reads from a position into `into`. @returns the number of bytes read */
  read(into: Uint8Array, at: number): number {
    this.flush();
    return readSync(this.file, into, 0, into.length, at);
  }

  /** Closes a file that is to be deleted. */
  discard(): void {
    closeSync(this.file);
  }

  /** Truncates the file, syncs it to the disk and closes it. */
  finish(length = this.length): void {
    this.flush();
    ftruncateSync(this.file, length);
    fsyncSync(this.file);
    closeSync(this.file);
  }
}
