import type { Readable } from 'node:stream';
import * as yazl from 'yazl';

/** A zip of files, made while it is read. They are not compressed: samples hardly shrink. */
export function zipFiles(files: readonly { readonly name: string; readonly path: string }[]): Readable {
  const zip = new yazl.ZipFile();
  for (const { name, path } of files) zip.addFile(path, name, { compress: false });
  zip.end();
  return zip.outputStream as Readable;
}
