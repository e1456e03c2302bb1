import * as z from 'zod';
import { API } from '../src/core/api/contract';
import type { Answer, Endpoint, RequestBody } from '../src/core/api/endpoint';
import { problemSchema } from '../src/core/api/schemas';
import { itemOfList } from '../src/core/piece/boundedList';

type JsonSchema = z.core.JSONSchema.BaseSchema;

const COMPONENTS = '#/components/schemas/';

/** Turns Zod's schemas into those of the document; what contains itself is stored among its components. */
class SchemaWriter {
  readonly components: Record<string, JsonSchema> = {};
  private readonly names = new Map<string, string>();

  /** @param io what is sent, or what comes back: they differ where a schema has defaults */
  write(type: z.ZodType, io: 'input' | 'output'): JsonSchema {
    const {
      $schema: _dialect,
      $defs = {},
      ...own
    } = z.toJSONSchema(type, {
      io,
      unrepresentable: 'any',
      override: ({ zodSchema, jsonSchema }) => {
        const item = itemOfList(zodSchema);
        if (item) jsonSchema.items = this.write(item, io);
      },
    });
    const names = new Map(Object.entries($defs).map(([id, part]) => [`#/$defs/${id}`, this.nameOf(part)]));
    for (const [id, part] of Object.entries($defs))
      this.components[names.get(`#/$defs/${id}`)!] = withReferences(part, names) as JsonSchema;
    return withReferences(own, names) as JsonSchema;
  }

  private nameOf(part: JsonSchema): string {
    const text = JSON.stringify(part);
    const name = this.names.get(text) ?? `Part${this.names.size + 1}`;
    this.names.set(text, name);
    return name;
  }
}

/** A copy in which references to a schema's own parts lead to the document's components. */
function withReferences(value: unknown, names: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(value)) return value.map((item) => withReferences(item, names));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, member]) =>
      key === '$ref' && names.has(member)
        ? [key, COMPONENTS + names.get(member)]
        : [key, withReferences(member, names)],
    ),
  );
}

let description: Record<string, unknown> | null = null;

/** The API as an OpenAPI document, made once from the contract. */
export function apiDescription(): Record<string, unknown> {
  description ??= describe(Object.entries(API));
  return description;
}

function describe(endpoints: readonly (readonly [name: string, endpoint: Endpoint])[]): Record<string, unknown> {
  const schemas = new SchemaWriter();
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, endpoint] of endpoints) {
    const path = `/api${endpoint.path.replace(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operation(name, endpoint, schemas) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Zephiro', version: '1' },
    paths,
    components: {
      schemas: { ...schemas.components, Problem: schemas.write(problemSchema, 'output') },
      responses: { Problem: PROBLEM },
    },
  };
}

const IF_MATCH = {
  name: 'If-Match',
  in: 'header',
  required: true,
  description: 'The revision that the save is based on, in double quotes',
  schema: { type: 'string', pattern: '^"\\d{1,15}"$' },
};
const PROBLEM = {
  description: 'What went wrong, what was kept and what to do',
  content: { 'application/problem+json': { schema: { $ref: `${COMPONENTS}Problem` } } },
};

function operation(name: string, endpoint: Endpoint, schemas: SchemaWriter) {
  const { summary, params, query, body, answer, problems = [], basedOnRevision } = endpoint;
  return {
    operationId: name,
    summary,
    parameters: [
      ...parameters('path', params, schemas),
      ...parameters('query', query, schemas),
      ...(basedOnRevision ? [IF_MATCH] : []),
    ],
    ...(body ? { requestBody: { required: true, content: bodyContent(body, schemas) } } : {}),
    responses: {
      [answer.kind === 'json' ? answer.status : 200]: {
        description: answer.description,
        content: answerContent(answer, schemas),
      },
      ...Object.fromEntries(
        [...problems, ...(params || query ? [400] : [])].map((status) => [
          status,
          { $ref: '#/components/responses/Problem' },
        ]),
      ),
    },
  };
}

const parameters = (where: 'path' | 'query', shape: z.ZodObject | undefined, schemas: SchemaWriter) =>
  Object.entries<z.ZodType>(shape?.shape ?? {}).map(([name, type]) => ({
    name,
    in: where,
    required: !type.safeParse(undefined).success,
    schema: schemas.write(type, 'input'),
  }));

const bodyContent = (body: RequestBody, schemas: SchemaWriter) =>
  body.kind === 'json' ? { 'application/json': { schema: schemas.write(body.schema, 'input') } } : { [body.type]: {} };

const answerContent = (answer: Answer, schemas: SchemaWriter) =>
  answer.kind === 'json'
    ? { 'application/json': { schema: schemas.write(answer.schema, 'output') } }
    : Object.fromEntries(answer.types.map((type) => [type, {}]));
