import { gzipSync } from 'node:zlib';

/** Values of a path parameter, as they are sent: encoded or not. */
export const HOSTILE_SEGMENTS: readonly string[] = [
  '..',
  '%2e%2e',
  '.%2e',
  '..%2Fvictim',
  '..%2F..%2Fvictim',
  '%2e%2e%2f%2e%2e%2fvictim',
  '..%5Cvictim',
  '%2Fetc%2Fpasswd',
  'C:%5Cvictim',
  'victim',
  'victim%00.wav',
  '%00',
  '%0a%0dX:%20y',
  '%',
  '%zz',
  '%ff%fe',
  '%ed%a0%80',
  '%F0%9F%8C%8A',
  '%20',
  '.',
  '-1',
  '0',
  '9007199254740993',
  '1e400',
  'NaN',
  'null',
  'undefined',
  '__proto__',
  'constructor',
  '[object Object]'.replaceAll(' ', '%20'),
  '%7B%7D',
  "'%20OR%201=1--",
  'a'.repeat(5000),
  '0'.repeat(64),
  'f'.repeat(64),
  '00000000-0000-4000-8000-000000000000',
];

/** Query strings, for any address. */
export const HOSTILE_QUERIES: readonly string[] = [
  '',
  '?',
  '?name',
  '?name=',
  '?name=%',
  '?name=%ed%a0%80',
  '?name=a&name=b',
  '?name[a]=b',
  '?name=..%2F..%2Fvictim',
  `?name=${'n'.repeat(4000)}`,
  '?piece=',
  '?piece=__proto__&piece=x',
  '?upload=1',
  '?upload=..%2Fvictim',
  '?bits=16&name=%0d%0aSet-Cookie:%20a',
  '?bits=17',
  '?__proto__[x]=1',
];

export interface HostileBody {
  readonly what: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly bytes: Uint8Array;
}

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const json = (what: string, text: string): HostileBody => ({
  what,
  headers: { 'content-type': 'application/json' },
  bytes: utf8(text),
});
const nested = (depth: number, open: string, close: string): string => open.repeat(depth) + close.repeat(depth);

/** Invalid bodies, for any address that has one. */
export const HOSTILE_BODIES: readonly HostileBody[] = [
  { what: 'no body', headers: {}, bytes: new Uint8Array(0) },
  { what: 'no type', headers: {}, bytes: utf8('{}') },
  { what: 'text', headers: { 'content-type': 'text/plain' }, bytes: utf8('{}') },
  ...[
    '',
    '{',
    '{}',
    '[]',
    'null',
    'true',
    '1',
    '-0',
    '1e999',
    '9007199254740993',
    '"text"',
    '"\\ud800"',
    '{"a":1,"a":2}',
  ].map((text) => json(text, text)),
  json('prototype', '{"__proto__":{"version":5},"constructor":{"prototype":{"id":"x"}}}'),
  json('800 deep', nested(800, '[', ']')),
  json('100 000 deep', nested(100_000, '{"a":', '1}')),
  json('wide', `[${'{},'.repeat(300_000)}{}]`),
  {
    what: 'no UTF-8',
    headers: { 'content-type': 'application/json' },
    bytes: Uint8Array.of(0x7b, 0x22, 0xff, 0xfe, 0x22, 0x7d),
  },
  {
    what: 'UTF-16',
    headers: { 'content-type': 'application/json; charset=utf-16' },
    bytes: Buffer.from('{}', 'utf16le'),
  },
  { what: 'charset', headers: { 'content-type': 'application/json; charset=klingon' }, bytes: utf8('{}') },
  {
    what: 'encoding',
    headers: { 'content-type': 'application/json', 'content-encoding': 'snappy' },
    bytes: utf8('{}'),
  },
  { what: 'no gzip', headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' }, bytes: utf8('{}') },
  {
    what: 'gzip bomb',
    headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
    bytes: gzipSync(Buffer.alloc(100 << 20, '[')),
  },
];

/** Values in place of any one in a document. */
export const HOSTILE_MEMBERS: readonly unknown[] = [
  null,
  true,
  '',
  'x'.repeat(1000),
  '\ud800',
  '\u0000',
  '__proto__',
  -1,
  0.1,
  1e308,
  -1e308,
  9_007_199_254_740_991,
  -9_007_199_254_740_991,
  1e15,
  [],
  [[]],
  {},
  { x: {} },
];
