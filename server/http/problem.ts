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

const UNCHANGED = 'Nothing was changed.';
const NOT_UNDERSTOOD = 'The request is not understood';
const FULL = new Set(['ENOSPC', 'EDQUOT', 'EFBIG', 'SQLITE_FULL', 'SQLITE_IOERR_WRITE']);

/** What the libraries that read requests throw: how bad it is, and a word for what. */
const requestErrorSchema = z.object({ status: z.number().int().min(400).max(499), type: z.string().optional() });

/** By the type that body-parser gives its errors. */
const BODY_PROBLEMS: Readonly<Record<string, readonly [title: string, detail: string]>> = {
  'entity.too.large': ['Too large', `The request holds more than can be taken. ${UNCHANGED}`],
  'entity.parse.failed': [NOT_UNDERSTOOD, `The body is no JSON. ${UNCHANGED}`],
  'encoding.unsupported': [
    NOT_UNDERSTOOD,
    `The body is packed; send it as it is, without Content-Encoding. ${UNCHANGED}`,
  ],
  'charset.unsupported': [
    NOT_UNDERSTOOD,
    `The body is in a character set that is not read here. Send UTF-8. ${UNCHANGED}`,
  ],
  'request.aborted': ['The request ended early', `Less of the body came than was announced. ${UNCHANGED}`],
};

/** Any error as the answer to give for it: 4xx for what the asker can mend, 507 for a full disk, else 500. */
export function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError) {
    const issue = error.issues[0];
    return new Problem(
      400,
      NOT_UNDERSTOOD,
      `${issue?.path.join('.') || 'body'}: ${issue?.message ?? 'unknown'}. ${UNCHANGED}`,
    );
  }
  if (FULL.has(codeOf(error))) {
    return new Problem(
      507,
      'The disk is full',
      'Nothing new was stored and nothing already there was changed. Make room, then try again.',
    );
  }
  const asked = requestErrorSchema.safeParse(error).data;
  if (asked) {
    const [title, detail] = BODY_PROBLEMS[asked.type ?? ''] ?? [
      NOT_UNDERSTOOD,
      `Its address or its body cannot be read. ${UNCHANGED}`,
    ];
    return new Problem(asked.status, title, detail);
  }
  return new Problem(
    500,
    'Something went wrong here',
    'Nothing already stored was changed. Try again; the server’s log tells more.',
  );
}

export function codeOf(error: unknown): string {
  const parsed = z.object({ code: z.string() }).safeParse(error);
  return parsed.success ? parsed.data.code : '';
}

export function sendProblem(res: Response, problem: Problem): void {
  const { status, title, detail, more } = problem;
  res
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title, status, detail, ...more }));
}

export const problemHandler: ErrorRequestHandler = (error, req, res, next) => {
  const problem = toProblem(error);
  if (problem.status === 500) req.log.error(error);
  if (res.headersSent) next(error);
  else sendProblem(res, problem);
};
