import * as z from 'zod';
import { exportOrderSchema, exportStatusSchema } from '../src/core/files/order';
import { blockSchema } from '../src/core/piece/block';
import { itemOfList } from '../src/core/piece/boundedList';
import { pieceSchema } from '../src/core/piece/piece';
import { soundSchema } from '../src/core/piece/soundInfo';
import { saveSchema } from './store/pieceStore';

const schema = (type: z.ZodType): z.core.JSONSchema.BaseSchema =>
  z.toJSONSchema(type, {
    io: 'input',
    unrepresentable: 'any',
    override: ({ zodSchema, jsonSchema }) => {
      const item = itemOfList(zodSchema);
      if (item) jsonSchema.items = schema(item);
    },
  });
const answer = (description: string): unknown => ({ description });
const problem = {
  description: 'What went wrong, what was kept and what to do',
  content: { 'application/problem+json': {} },
};
const body = (type: z.ZodType): unknown => ({
  required: true,
  content: { 'application/json': { schema: schema(type) } },
});

let description: unknown = null;

/** The API as an OpenAPI document, made once from the schemas that guard it. */
export function apiDescription(): unknown {
  description ??= describe();
  return description;
}

function describe(): unknown {
  return {
    openapi: '3.1.0',
    info: { title: 'Zephiro', version: '1' },
    paths: {
      '/api/health': { get: { summary: 'Whether the server answers', responses: { 200: answer('It does') } } },
      '/api/openapi.json': { get: { summary: 'This description', responses: { 200: answer('OpenAPI') } } },
      '/api/pieces': {
        get: { summary: 'All pieces, newest first', responses: { 200: answer('A list') } },
        post: {
          summary: 'Store a new piece',
          requestBody: body(pieceSchema),
          responses: { 201: answer('Stored'), 400: problem, 409: problem },
        },
      },
      '/api/pieces/{id}': {
        get: {
          summary: 'A piece with its revision and history',
          responses: { 200: answer('The piece'), 404: problem, 422: problem },
        },
        put: {
          summary: 'Save over the revision named in If-Match',
          requestBody: body(saveSchema),
          responses: { 200: answer('The new revision'), 400: problem, 409: problem, 428: problem, 507: problem },
        },
        delete: {
          summary: 'Put a piece into the bin, for 30 days',
          responses: { 200: answer('Removed'), 404: problem },
        },
      },
      '/api/pieces/{id}/restore': {
        post: { summary: 'Take a piece out of the bin', responses: { 200: answer('It is back'), 404: problem } },
      },
      '/api/pieces/{id}/document': {
        get: {
          summary: 'The stored document of a piece as it is, whether or not it can be read',
          responses: { 200: answer('JSON'), 404: problem },
        },
      },
      '/api/pieces/{id}/recover': {
        post: {
          summary: 'Make the newest revision that can be read a piece of its own',
          responses: { 201: answer('Its id'), 404: problem },
        },
      },
      '/api/uploads/{id}': {
        get: {
          summary: 'How far an upload has come that was begun with ?upload=its id',
          responses: { 200: answer('Its state, bytes received, and how many are worked on before it'), 404: problem },
        },
      },
      '/api/sounds/{hash}/check': {
        get: {
          summary: 'Whether the bytes of a stored sound are what its hash says',
          responses: { 200: answer('Whether it is intact'), 404: problem },
        },
      },
      '/api/blocks': {
        get: { summary: 'All blocks, by name', responses: { 200: answer('A list') } },
        post: {
          summary: 'Keep a block',
          requestBody: body(blockSchema),
          responses: { 201: answer('Kept'), 400: problem, 409: problem },
        },
      },
      '/api/blocks/{id}': {
        delete: { summary: 'Remove a block', responses: { 200: answer('Removed'), 404: problem } },
      },
      '/api/sounds': {
        post: {
          summary: 'Add a sound file (its bytes as the body, its name in ?name=)',
          responses: {
            201: { description: 'Kept', content: { 'application/json': { schema: schema(soundSchema) } } },
            413: problem,
            422: problem,
            507: problem,
          },
        },
      },
      '/api/sounds/{hash}': {
        get: { summary: 'A sound as 32-bit float WAV', responses: { 200: answer('WAV'), 404: problem } },
      },
      '/api/exports': {
        get: {
          summary: 'Files written from a piece (?piece=its id), newest first, and those on their way',
          responses: {
            200: {
              description: 'A list',
              content: { 'application/json': { schema: schema(z.array(exportStatusSchema)) } },
            },
          },
        },
        post: {
          summary: 'Start to write files',
          requestBody: body(exportOrderSchema),
          responses: { 202: answer('Begun; its id'), 400: problem, 404: problem, 422: problem },
        },
      },
      '/api/exports/{id}': {
        delete: {
          summary: 'Stop an export, or put a finished one away with its files',
          responses: { 200: answer('Stopped or put away') },
        },
      },
      '/api/exports/{id}/files/{name}': {
        get: { summary: 'A finished file', responses: { 200: answer('WAV or FLAC'), 404: problem } },
      },
      '/api/pieces/{id}/archive': {
        get: {
          summary: 'A piece with its history and every sound, as a zip file',
          responses: { 200: answer('The archive'), 404: problem },
        },
      },
      '/api/archives': {
        post: {
          summary: 'Bring a piece in from an archive (its bytes as the body)',
          responses: { 201: answer('The id of the piece'), 413: problem, 422: problem, 507: problem },
        },
      },
      '/api/sounds/{hash}/file': {
        get: { summary: 'A sound to download, ?bits=16, 24 or 32f', responses: { 200: answer('WAV'), 404: problem } },
      },
    },
  };
}
