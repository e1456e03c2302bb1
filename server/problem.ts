import type { ErrorRequestHandler, Response } from 'express';
import * as z from 'zod';

/** An answer to something that cannot be done: what happened, what was kept, what to do (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(`${title}: ${detail}`);
  }
}

const FULL = new Set(['ENOSPC', 'EDQUOT', 'EFBIG', 'SQLITE_FULL', 'SQLITE_IOERR_WRITE']);

export function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError) {
    const issue = error.issues[0];
    return new Problem(400, 'The request is not understood', `${issue?.path.join('.') || 'body'}: ${issue?.message ?? 'unknown'}. Nothing was changed.`);
  }
  const code = codeOf(error);
  if (FULL.has(code)) return new Problem(507, 'The disk is full', 'Nothing new was stored and nothing already there was changed. Make room, then try again.');
  if (code === 'entity.too.large') return new Problem(413, 'Too large', 'The request holds more than can be taken. Nothing was changed.');
  if (code === 'entity.parse.failed') return new Problem(400, 'The request is not understood', 'The body is no JSON. Nothing was changed.');
  return new Problem(500, 'Something went wrong here', 'Nothing already stored was changed. Try again; the server’s log tells more.');
}

export function codeOf(error: unknown): string {
  const parsed = z.object({ code: z.string().optional(), type: z.string().optional() }).safeParse(error);
  return parsed.success ? (parsed.data.code ?? parsed.data.type ?? '') : '';
}

export function sendProblem(res: Response, problem: Problem): void {
  res
    .status(problem.status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title: problem.title, status: problem.status, detail: problem.detail, ...problem.more }));
}

export const problemHandler: ErrorRequestHandler = (error, req, res, next) => {
  const problem = toProblem(error);
  if (problem.status === 500) req.log.error(error);
  if (res.headersSent) next(error);
  else sendProblem(res, problem);
};
