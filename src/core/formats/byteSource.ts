/** Bytes with random access: a file on a disk, or an array in memory. */
export interface ByteSource {
  /** In bytes. */
  readonly length: number;
  /** Bytes from `offset` on; fewer than `length` where the source ends. Valid until the next call. */
  read(offset: number, length: number): Uint8Array;
}

export const memorySource = (bytes: Uint8Array): ByteSource => ({
  length: bytes.length,
  read: (offset, length) => bytes.subarray(offset, offset + length),
});

export const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** Four letters, as chunked files name their parts. */
export const fourLetters = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + 4));
