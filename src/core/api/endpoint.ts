import type * as z from 'zod';

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** What a request carries beside its address. */
export type RequestBody =
  | { readonly kind: 'json'; readonly schema: z.ZodType }
  /** The bytes of a file; `type` is what the client calls them. */
  | { readonly kind: 'file'; readonly type: string };

export type Answer =
  | {
      readonly kind: 'json';
      readonly status: 200 | 201 | 202;
      readonly description: string;
      readonly schema: z.ZodType;
    }
  | { readonly kind: 'file'; readonly description: string; readonly types: readonly string[] };

/**
 * One address of the API. The server's routes, the client's calls and the OpenAPI document are made from it. What is
 * left out is not there: no parameters, no query, no body, no problems but those of any request.
 */
export interface Endpoint {
  readonly method: Method;
  /** Below `/api`, with parameters as `:name`. */
  readonly path: string;
  readonly summary: string;
  /** A schema for each parameter of the path. */
  readonly params?: z.ZodObject;
  /** Query parameters; unknown ones are ignored. */
  readonly query?: z.ZodObject;
  readonly body?: RequestBody;
  readonly answer: Answer;
  /** Statuses of what can go wrong, each told as `application/problem+json` (RFC 9457). */
  readonly problems?: readonly number[];
  /** Whether a request names the revision that it is based on, in `If-Match`. */
  readonly basedOnRevision?: boolean;
}

type ShapeOf<E extends Endpoint, Name extends 'params' | 'query'> = E extends {
  readonly [N in Name]: infer S extends z.ZodObject;
}
  ? S
  : null;

export type ParamsOf<E extends Endpoint> =
  ShapeOf<E, 'params'> extends z.ZodObject ? z.output<ShapeOf<E, 'params'>> : object;
export type QueryOf<E extends Endpoint> =
  ShapeOf<E, 'query'> extends z.ZodObject ? z.output<ShapeOf<E, 'query'>> : object;

type JsonSchemaOf<Part> = Part extends { readonly kind: 'json'; readonly schema: infer S extends z.ZodType }
  ? S
  : z.ZodNever;

/** What the client reads of an answer; never where it is a file. */
export type AnswerOf<E extends Endpoint> = z.output<JsonSchemaOf<E['answer']>>;
/** What a handler of the server gives, to be sent as JSON. */
export type HandlerResult<E extends Endpoint> = z.input<JsonSchemaOf<E['answer']>>;

/** `T` with every property readonly, at any depth. */
type ReadonlyDeep<T> = T extends readonly (infer Item)[]
  ? readonly ReadonlyDeep<Item>[]
  : T extends object
    ? { readonly [K in keyof T]: ReadonlyDeep<T[K]> }
    : T;

type ShapeOption<E extends Endpoint, Name extends 'params' | 'query'> =
  ShapeOf<E, Name> extends z.ZodObject
    ? object extends z.input<ShapeOf<E, Name>>
      ? { readonly [N in Name]?: z.input<ShapeOf<E, Name>> }
      : { readonly [N in Name]: z.input<ShapeOf<E, Name>> }
    : object;

type BodyOption<E extends Endpoint> = E extends {
  readonly body: { readonly kind: 'json'; readonly schema: infer S extends z.ZodType };
}
  ? { readonly body: ReadonlyDeep<z.input<S>> }
  : E extends { readonly body: { readonly kind: 'file' } }
    ? { readonly body: Blob }
    : object;

/** What a call of an endpoint takes: parameters, query and body where it has them, and the revision it is based on. */
export type CallOptions<E extends Endpoint> = ShapeOption<E, 'params'> &
  ShapeOption<E, 'query'> &
  BodyOption<E> &
  (E extends { readonly basedOnRevision: true } ? { readonly revision: number } : object);

interface AddressParts {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
}

/**
 * The address of an endpoint from the root of the server. Whatever is in a parameter stays within its segment.
 * @throws RangeError for `.` and `..`, which no address can hold
 */
export function addressOf({ path }: Pick<Endpoint, 'path'>, { params = {}, query = {} }: AddressParts = {}): string {
  const filled = path.replace(/:(\w+)/g, (_match, name: string) => segment(String(params[name])));
  const asked = Object.entries(query).filter(([, value]) => value !== undefined && value !== null);
  const search = new URLSearchParams(asked.map(([name, value]): [string, string] => [name, String(value)])).toString();
  return `/api${filled}${search ? `?${search}` : ''}`;
}

function segment(text: string): string {
  if (text === '.' || text === '..') throw new RangeError(`There is no address for “${text}”.`);
  return encodeURIComponent(text);
}
