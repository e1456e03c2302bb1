import { closeSync, ftruncateSync, fsyncSync, openSync, readSync, writeSync } from 'node:fs';

/** Bytes gathered before they go to the disk. */
const GATHERED = 1 << 20;

/** A file that grows in large pieces, and whose beginning can be written again. */
export class GrowingFile {
  private readonly file: number;
  private readonly gathered = Buffer.alloc(GATHERED);
  private filled = 0;
  private written = 0;

  constructor(path: string) {
    this.file = openSync(path, 'w+');
  }

  get length(): number {
    return this.written + this.filled;
  }

  append(bytes: Uint8Array): void {
    if (this.filled + bytes.length > GATHERED) this.flush();
    if (bytes.length > GATHERED) {
      this.put(bytes, this.written);
      this.written += bytes.length;
      return;
    }
    this.gathered.set(bytes, this.filled);
    this.filled += bytes.length;
  }

  private flush(): void {
    this.put(this.gathered.subarray(0, this.filled), this.written);
    this.written += this.filled;
    this.filled = 0;
  }

  private put(bytes: Uint8Array, at: number): void {
    for (let done = 0; done < bytes.length;) done += writeSync(this.file, bytes, done, bytes.length - done, at + done);
  }

  /** Writes over what stands at a place. */
  over(bytes: Uint8Array, at: number): void {
    this.flush();
    this.put(bytes, at);
  }

  /** Reads from a place into `into`; gives how many bytes there were. */
  read(into: Uint8Array, at: number): number {
    this.flush();
    return readSync(this.file, into, 0, into.length, at);
  }

  /** Lets go of a file that is not to stay. */
  discard(): void {
    closeSync(this.file);
  }

  /** Cuts the file there, makes sure that it is on the disk, and lets go of it. */
  finish(length = this.length): void {
    this.flush();
    ftruncateSync(this.file, length);
    fsyncSync(this.file);
    closeSync(this.file);
  }
}
