import type { Response } from 'express';

/** Sends a document that is JSON already. */
export function sendJson(res: Response, body: Uint8Array): void {
  res.type('application/json').send(Buffer.from(body.buffer, body.byteOffset, body.byteLength));
}

/** Control characters, which no file name may have, and what no name of a file to be saved can be made of. */
const UNNAMEABLE = /[\p{Cc}\p{Cs}/\\]/gu;

/** Makes an answer one that the browser saves under a name. */
export function attach(res: Response, name: string): void {
  res.attachment(name.replace(UNNAMEABLE, ' '));
}
