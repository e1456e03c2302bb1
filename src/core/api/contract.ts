import * as z from 'zod';
import { exportOrderSchema, exportStatusSchema } from '../files/order';
import { blockSchema } from '../piece/block';
import { hashSchema, idSchema, nameSchema } from '../piece/fields';
import { pieceSchema } from '../piece/piece';
import type { Endpoint } from './endpoint';
import {
  binnedPieceSchema,
  pieceListingSchema,
  saveSchema,
  soundAmountSchema,
  storageSchema,
  storedPieceSchema,
  storedSoundSchema,
  uploadStatusSchema,
} from './schemas';

const SOUND_FILE = { kind: 'file', type: 'application/octet-stream' } as const;
const ARCHIVE = { kind: 'file', type: 'application/zip' } as const;

const json = <const Status extends 200 | 201 | 202, S extends z.ZodType>(
  status: Status,
  description: string,
  schema: S,
) => ({ kind: 'json', status, description, schema }) as const;
const file = (description: string, ...types: string[]) => ({ kind: 'file', description, types }) as const;
const body = <S extends z.ZodType>(schema: S) => ({ kind: 'json', schema }) as const;

const done = (description: string) => json(200, description, z.object({ ok: z.literal(true) }));
const madeId = <const Status extends 201 | 202>(status: Status, description: string) =>
  json(status, description, z.object({ id: z.string() }));
const revision = z.object({ revision: z.number() });
const ofPiece = z.object({ id: idSchema });
const ofSound = z.object({ hash: hashSchema });
const ofExport = z.object({ id: z.uuid('is no id of an export') });
/** By which the state of an upload can be asked for while it goes on. */
const uploadId = z.uuid().optional();

const pieces = {
  listPieces: {
    method: 'GET',
    path: '/pieces',
    summary: 'All pieces, newest first',
    answer: json(200, 'A list', z.array(pieceListingSchema)),
  },
  listBin: {
    method: 'GET',
    path: '/bin',
    summary: 'Pieces in the bin, removed last first',
    answer: json(200, 'A list', z.array(binnedPieceSchema)),
  },
  createPiece: {
    method: 'POST',
    path: '/pieces',
    summary: 'Store a new piece',
    body: body(pieceSchema),
    answer: json(201, 'Stored', revision),
    problems: [400, 409, 413, 507],
  },
  readPiece: {
    method: 'GET',
    path: '/pieces/:id',
    summary: 'A piece with its revision and history',
    params: ofPiece,
    answer: json(200, 'The piece', storedPieceSchema),
    problems: [404, 422],
  },
  savePiece: {
    method: 'PUT',
    path: '/pieces/:id',
    summary: 'Save over the revision named in If-Match',
    params: ofPiece,
    body: body(saveSchema),
    answer: json(200, 'The new revision', revision),
    problems: [400, 404, 409, 413, 428, 507],
    basedOnRevision: true,
  },
  removePiece: {
    method: 'DELETE',
    path: '/pieces/:id',
    summary: 'Put a piece into the bin, for 30 days',
    params: ofPiece,
    answer: done('Removed'),
    problems: [404],
  },
  restorePiece: {
    method: 'POST',
    path: '/pieces/:id/restore',
    summary: 'Take a piece out of the bin',
    params: ofPiece,
    answer: done('It is back'),
    problems: [404],
  },
  readDocument: {
    method: 'GET',
    path: '/pieces/:id/document',
    summary: 'The stored document of a piece as it is, whether or not it can be read',
    params: ofPiece,
    answer: file('The document', 'application/json'),
    problems: [404],
  },
  recoverPiece: {
    method: 'POST',
    path: '/pieces/:id/recover',
    summary: 'Make the newest revision that can be read a piece of its own',
    params: ofPiece,
    answer: madeId(201, 'Its id'),
    problems: [404],
  },
  writeArchive: {
    method: 'GET',
    path: '/pieces/:id/archive',
    summary: 'A piece with its history and every sound, as a zip file',
    params: ofPiece,
    answer: file('The archive', 'application/zip'),
    problems: [404],
  },
  readArchive: {
    method: 'POST',
    path: '/archives',
    summary: 'Bring a piece in from an archive (its bytes as the body)',
    query: z.object({ upload: uploadId }),
    body: ARCHIVE,
    answer: madeId(201, 'The id of the piece'),
    problems: [413, 422, 507],
  },
} as const satisfies Record<string, Endpoint>;

const blocks = {
  listBlocks: {
    method: 'GET',
    path: '/blocks',
    summary: 'All blocks, by name',
    answer: json(200, 'A list', z.array(blockSchema)),
  },
  saveBlock: {
    method: 'POST',
    path: '/blocks',
    summary: 'Keep a block',
    body: body(blockSchema),
    answer: json(201, 'Kept', z.object({ ok: z.literal(true) })),
    problems: [400, 409, 507],
  },
  removeBlock: {
    method: 'DELETE',
    path: '/blocks/:id',
    summary: 'Remove a block',
    params: ofPiece,
    answer: done('Removed'),
    problems: [404],
  },
} as const satisfies Record<string, Endpoint>;

const sounds = {
  uploadSound: {
    method: 'POST',
    path: '/sounds',
    summary: 'Add a sound file (its bytes as the body, its name in ?name=)',
    query: z.object({ name: nameSchema, upload: uploadId }),
    body: SOUND_FILE,
    answer: json(201, 'Kept', storedSoundSchema),
    problems: [413, 415, 422, 507],
  },
  uploadStatus: {
    method: 'GET',
    path: '/uploads/:id',
    summary: 'How far an upload has come that was begun with ?upload=its id',
    params: z.object({ id: z.uuid() }),
    answer: json(200, 'Its state, bytes received, and how many are worked on before it', uploadStatusSchema),
    problems: [404],
  },
  readSound: {
    method: 'GET',
    path: '/sounds/:hash',
    summary: 'A sound as 32-bit float WAV',
    params: ofSound,
    answer: file('The sound', 'audio/wav'),
    problems: [404],
  },
  checkSound: {
    method: 'GET',
    path: '/sounds/:hash/check',
    summary: 'Whether the bytes of a stored sound are what its hash says',
    params: ofSound,
    answer: json(200, 'Whether it is intact', z.object({ intact: z.boolean() })),
    problems: [404],
  },
  downloadSound: {
    method: 'GET',
    path: '/sounds/:hash/file',
    summary: 'A sound to download, ?bits=16, 24 or 32f',
    params: ofSound,
    query: z.object({ bits: z.enum(['16', '24', '32f']).default('32f'), name: nameSchema.default('print') }),
    answer: file('The sound', 'audio/wav'),
    problems: [404],
  },
} as const satisfies Record<string, Endpoint>;

const storage = {
  readStorage: {
    method: 'GET',
    path: '/storage',
    summary: 'How much the sounds on the server take, and those that nothing uses any more',
    answer: json(200, 'Counts and bytes', storageSchema),
  },
  clearStorage: {
    method: 'DELETE',
    path: '/storage/unused',
    summary: 'Remove sounds that no piece, history, revision, block or print uses, and that came more than a week ago',
    answer: json(200, 'What was removed', soundAmountSchema),
  },
} as const satisfies Record<string, Endpoint>;

const writtenFiles = {
  listExports: {
    method: 'GET',
    path: '/exports',
    summary: 'Files written from a piece (?piece=its id), newest first, and those on their way',
    query: z.object({ piece: idSchema }),
    answer: json(200, 'A list', z.array(exportStatusSchema)),
    problems: [400],
  },
  startExport: {
    method: 'POST',
    path: '/exports',
    summary: 'Start to write files',
    body: body(exportOrderSchema),
    answer: madeId(202, 'Begun; its id'),
    problems: [400, 404, 422],
  },
  removeExport: {
    method: 'DELETE',
    path: '/exports/:id',
    summary: 'Stop an export, or put a finished one away with its files',
    params: ofExport,
    answer: done('Stopped or put away'),
    problems: [400, 404],
  },
  readExportFile: {
    method: 'GET',
    path: '/exports/:id/files/:name',
    summary: 'A finished file',
    params: ofExport.extend({ name: z.string().max(300) }),
    answer: file('The file', 'audio/wav', 'audio/flac'),
    problems: [404],
  },
  readExportArchive: {
    method: 'GET',
    path: '/exports/:id/archive',
    summary: 'All files of a finished export in one zip file',
    params: ofExport,
    answer: file('The files', 'application/zip'),
    problems: [404],
  },
} as const satisfies Record<string, Endpoint>;

const service = {
  health: {
    method: 'GET',
    path: '/health',
    summary: 'Whether the server answers',
    answer: done('It does'),
  },
  describe: {
    method: 'GET',
    path: '/openapi.json',
    summary: 'This description',
    answer: json(200, 'OpenAPI', z.record(z.string(), z.unknown())),
  },
} as const satisfies Record<string, Endpoint>;

/** Every address of the API, by the name of what it does. */
export const API = { ...service, ...pieces, ...blocks, ...sounds, ...storage, ...writtenFiles } as const;
