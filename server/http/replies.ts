import type { Response } from 'express';

/** Sends a document that is already JSON text. */
export function sendJson(res: Response, body: Uint8Array): void {
  res.type('application/json').send(Buffer.from(body.buffer, body.byteOffset, body.byteLength));
}

/** Control characters and others that a file name must not contain. */
const UNNAMEABLE = /[\p{Cc}\p{Cs}/\\]/gu;

/** Sets the headers by which the browser saves the answer as a file of this name. */
export function attach(res: Response, name: string): void {
  res.attachment(name.replace(UNNAMEABLE, ' '));
}
