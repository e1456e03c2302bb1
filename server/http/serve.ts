import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import type { Endpoint, ParamsOf, QueryOf, HandlerResult } from '../../src/core/api/endpoint';
import { jsonBytes } from './bodies';
import { sendJson } from './replies';

/** A document that is JSON already, as the store's thread gives it. */
export class JsonBytes {
  constructor(readonly bytes: Uint8Array) {}
}

/** The response without content. */
export const OK = { ok: true } as const;

export interface EndpointRequest<E extends Endpoint> {
  readonly params: ParamsOf<E>;
  readonly query: QueryOf<E>;
  /** A JSON body is read as bytes (`bodyBytes`) and parsed by the store's thread; that of a file is not read yet. */
  readonly req: Request;
  readonly res: Response;
}

type Handler<E extends Endpoint> = (
  request: EndpointRequest<E>,
) => E['answer']['kind'] extends 'json'
  ? (HandlerResult<E> | JsonBytes) | Promise<HandlerResult<E> | JsonBytes>
  : Promise<void>;

/**
 * Adds the route of an endpoint. Its path and query are read by their schemas first (400 where they do not fit). What
 * the handler gives is sent as JSON with the endpoint's status; one that answers with a file sends it itself.
 */
export function serve<E extends Endpoint>(router: Router, endpoint: E, handle: Handler<E>): void {
  const { method, path, params, query, body, answer }: Endpoint = endpoint;
  const register = { GET: 'get', POST: 'post', PUT: 'put', DELETE: 'delete' } as const;
  router[register[method]](path, ...(body?.kind === 'json' ? [jsonBytes] : []), async (req, res) => {
    const reply: unknown = await handle({
      params: read(params, req.params) as ParamsOf<E>,
      query: read(query, req.query) as QueryOf<E>,
      req,
      res,
    });
    if (answer.kind === 'file') return;
    res.status(answer.status);
    if (reply instanceof JsonBytes) sendJson(res, reply.bytes);
    else res.json(reply);
  });
}

const read = (schema: z.ZodObject | undefined, given: unknown): unknown => (schema ? schema.parse(given) : {});
