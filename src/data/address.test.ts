import fc from 'fast-check';
import { formatAddress, parseAddress, VIEW_NAMES, type Address } from './address';

const text = fc.string({ minLength: 1, maxLength: 64, unit: 'binary' });

const addresses: fc.Arbitrary<Address> = fc
  .record({
    piece: fc.option(text),
    view: fc.constantFrom(...VIEW_NAMES),
    channel: fc.option(text),
    slot: fc.option(text),
  })
  .map((one) => ({
    ...one,
    channel: one.view === 'shelf' || one.view === 'play' ? null : one.channel,
    slot: one.view === 'shelf' || one.view === 'play' || one.view === 'moves' || one.channel === null ? null : one.slot,
  }));

test('every place has an address that leads back to it, whatever its ids hold', () => {
  fc.assert(
    fc.property(addresses, (address) => {
      expect(parseAddress(formatAddress(address))).toEqual(address);
    }),
  );
});

test('an id with half a character has an address too', () => {
  expect(formatAddress({ piece: 'a\ud800', view: 'chain', channel: null, slot: null })).toBe('/piece/a%EF%BF%BD/chain');
});

test.each<[string, Partial<Address>]>([
  ['/', { piece: null, view: 'piece' }],
  ['/chain', { piece: null, view: 'chain' }],
  ['/piece/salt-pier', { piece: 'salt-pier', view: 'piece' }],
  ['/piece/salt-pier/tracks/hum/call', { view: 'piece', channel: 'hum', slot: 'call' }],
  ['/piece/salt-pier/chain/hum/call', { view: 'chain', channel: 'hum', slot: 'call' }],
  ['/piece/salt-pier/moves/main/', { view: 'moves', channel: 'main', slot: null }],
  ['/piece/salt-pier/play', { piece: 'salt-pier', view: 'play', channel: null }],
  ['/piece/a%2Fb/shelf', { piece: 'a/b', view: 'shelf' }],
  ['/piece/50%/chain', { piece: '50%', view: 'chain' }],
])('%s is read', (path, expected) => {
  expect(parseAddress(path)).toMatchObject(expected);
});

test.each([
  '/pieces',
  '/piece/a/nowhere',
  '/piece/a/shelf/b',
  '/piece/a/play/b',
  '/piece/a/moves/b/c',
  '/piece/a/chain/b/c/d',
  '/piece/a/piece/b',
])('%s is no place', (path) => expect(parseAddress(path)).toBeNull());
