import { addressOf, type AnswerOf, type Endpoint, type CallOptions } from '../core/api/endpoint';
import { problemSchema } from '../core/api/schemas';

/** A problem that the server answered with, or that it could not be reached (`status` 0). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    /** The piece that a save was kept as, after a conflict. */
    readonly keptAs: string | null = null,
    /** When the last state of a piece that can be read was saved; null when there is none. */
    readonly lastGood: string | null = null,
  ) {
    super(`${title}. ${detail}`);
  }
}

const AWAY = new ApiProblem(
  0,
  'The server is away',
  'Your work is kept in this browser and is saved as soon as it is back.',
);

async function ask(url: string, init: RequestInit): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(url, init);
  } catch (error) {
    // Ended by whoever asked, who knows why.
    if (init.signal?.aborted) throw error;
    throw AWAY;
  }
  if (answer.ok) return answer;
  if (answer.status === 502 || answer.status === 503) throw AWAY;
  const problem = problemSchema.safeParse(await answer.json().catch(() => null));
  if (!problem.success)
    throw new ApiProblem(answer.status, 'The server refused', `It answered ${answer.status}. Nothing was changed.`);
  const { title, detail, keptAs, lastGood } = problem.data;
  throw new ApiProblem(answer.status, title, detail, keptAs ?? null, lastGood ?? null);
}

/** What `given` holds, for an endpoint of any kind. */
interface AnyCallOptions {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
  readonly revision?: number;
  readonly signal?: AbortSignal;
}

/** What a caller may add: a signal ends the request, which then throws what `fetch` throws. */
type Endable = Pick<AnyCallOptions, 'signal'>;

/**
 * Asks an endpoint that answers with JSON, and reads its answer by the endpoint's schema.
 * @throws ApiProblem for what the server refuses, and when it cannot be reached
 * @throws ZodError for an answer that does not match the endpoint's schema
 */
export async function call<E extends Endpoint>(
  endpoint: E,
  ...[given]: object extends CallOptions<E> ? [(CallOptions<E> & Endable)?] : [CallOptions<E> & Endable]
): Promise<AnswerOf<E>> {
  const { method, body, answer }: Endpoint = endpoint;
  if (answer.kind !== 'json') throw new Error(`${endpoint.path} answers with a file: use its address.`);
  const asked = (given ?? {}) as AnyCallOptions;
  const headers: Record<string, string> = {};
  if (body) headers['Content-Type'] = body.kind === 'json' ? 'application/json' : body.type;
  if (asked.revision !== undefined) headers['If-Match'] = `"${asked.revision}"`;
  const sent = !body ? null : body.kind === 'json' ? JSON.stringify(asked.body) : (asked.body as Blob);
  const response = await ask(addressOf(endpoint, asked), {
    method,
    headers,
    body: sent,
    ...(asked.signal && { signal: asked.signal }),
  });
  return answer.schema.parse(await response.json()) as AnswerOf<E>;
}
