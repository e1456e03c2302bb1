import fc from 'fast-check';
import { between } from '../testing';
import { UnreadableSound } from '../formats/audio';
import { BadData, readChain, readLanes } from './chainFile';
import { readFloatWav } from '../formats/floatWav';
import { readWav } from '../formats/readWav';
import { writeWav } from '../formats/writeWav';

const context = { tempo: { bpm: 90, beatsPerBar: 4 }, sampleRate: 48_000 };
const wave = fc.array(between(-1, 1), { minLength: 1, maxLength: 200 }).map((list) => Float32Array.from(list));

test('WAV comes back as it went: floats to the bit, 24 bit within half a step, 16 bit within dither', () => {
  fc.assert(
    fc.property(wave, fc.constantFrom(1, 2), fc.constantFrom(44_100, 48_000, 96_000), (samples, count, sampleRate) => {
      const audio = {
        sampleRate,
        channels: Array.from({ length: count }, (_, c) => samples.map((x) => (c === 0 ? x : -x))),
      };
      const away = (depth: '16' | '24' | '32f'): number => {
        const back = readWav(writeWav(audio, depth));
        expect([back.sampleRate, back.channels.length, back.channels[0]!.length]).toEqual([
          sampleRate,
          count,
          samples.length,
        ]);
        return Math.max(
          ...back.channels.flatMap((channel, c) => Array.from(channel, (x, i) => Math.abs(x - audio.channels[c]![i]!))),
        );
      };
      expect(readFloatWav(writeWav(audio, '32f'))).toEqual(audio);
      // Half a step, or one and a half with its dither; what is as loud as can be is cut by a whole one.
      return away('32f') === 0 && away('24') <= 1 / 8_388_608 && away('16') <= 1.5 / 32_768;
    }),
  );
});

test('a file of 24 bits that was read and not changed is written as it was', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -8_388_608, max: 8_388_607 }), { minLength: 1, maxLength: 200 }),
      (steps) => {
        const first = writeWav(
          { sampleRate: 48_000, channels: [Float32Array.from(steps, (step) => step / 8_388_608)] },
          '24',
        );
        expect(writeWav(readWav(first), '24')).toEqual(first);
        expect(Array.from(readWav(first).channels[0]!, (x) => x * 8_388_608)).toEqual(steps);
      },
    ),
  );
});

test('16 bit is dithered: a tone far under one step is still there on average', () => {
  const faint = Float32Array.from(
    { length: 48_000 },
    (_, i) => (0.4 / 32_768) * Math.sin((2 * Math.PI * 1000 * i) / 48_000),
  );
  const back = readWav(writeWav({ sampleRate: 48_000, channels: [faint] }, '16')).channels[0]!;
  const amount = back.reduce((sum, x, i) => sum + x * Math.sin((2 * Math.PI * 1000 * i) / 48_000), 0) / 24_000;
  expect(amount * 32_768).toBeCloseTo(0.4, 1);
});

/** A WAV of one frame a channel, in any coding, with a chunk in front that a reader must pass over. */
function coded(code: number, bits: number, extensible: boolean, put: (view: DataView, at: number) => void): Uint8Array {
  const formatSize = extensible ? 40 : 16;
  const bytes = new Uint8Array(12 + 8 + 4 + 8 + formatSize + 8 + bits / 8);
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string): void =>
    [...word].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  text(8, 'WAVE');
  text(12, 'LIST');
  view.setUint32(16, 3, true);
  text(24, 'fmt ');
  view.setUint32(28, formatSize, true);
  view.setUint16(32, extensible ? 0xfffe : code, true);
  view.setUint16(34, 1, true);
  view.setUint32(36, 48_000, true);
  view.setUint16(46, bits, true);
  if (extensible) view.setUint16(56, code, true);
  const data = 32 + formatSize;
  text(data, 'data');
  view.setUint32(data + 4, bits / 8, true);
  put(view, data + 8);
  return bytes;
}

test.each([
  ['8 bit', coded(1, 8, false, (view, at) => view.setUint8(at, 192))],
  ['16 bit extensible', coded(1, 16, true, (view, at) => view.setInt16(at, 16_384, true))],
  ['24 bit', coded(1, 24, false, (view, at) => view.setUint8(at + 2, 0x40))],
  ['32 bit', coded(1, 32, true, (view, at) => view.setInt32(at, 1 << 30, true))],
  ['32 float', coded(3, 32, true, (view, at) => view.setFloat32(at, 0.5, true))],
  ['64 float', coded(3, 64, false, (view, at) => view.setFloat64(at, 0.5, true))],
])('a half in %s WAV is read as a half', (_what, bytes) => expect(readWav(bytes).channels[0]![0]).toBe(0.5));

test.each([
  ['text', Uint8Array.from('not a sound at all', (letter) => letter.charCodeAt(0))],
  ['another coding', coded(2, 8, false, () => undefined)],
  ['its head alone', writeWav({ sampleRate: 48_000, channels: [new Float32Array(9)] }, '16').subarray(0, 30)],
])('%s is refused in plain words', (_what, bytes) => expect(() => readWav(bytes)).toThrow(UnreadableSound));

describe('chain files', () => {
  test('what is not named takes the preset’s value, else the default; typed values are understood', () => {
    const [slot] = readChain(
      { chain: [{ effect: 'echo', preset: 'fogBank', params: { timeL: 'dotted eighth', mix: '50 %' }, on: false }] },
      context,
    );
    expect(slot).toMatchObject({
      effect: 'echo',
      preset: 'fogBank',
      on: false,
      values: { timeL: '1/8d', mix: 0.5, feedback: 0.74, hold: false, balance: 'mix' },
    });
    expect(readChain({ chain: [{ effect: 'echo', params: { wet: 0.5 } }] }, context)[0]!.values).toMatchObject({
      dry: 1,
      wet: 0.5,
      filter: 'off',
      drive: 0,
      balance: 'levels',
    });
  });

  test.each([
    [{}, /not understood: chain/],
    [{ chain: [{ effect: 'teleport' }] }, /no effect called "teleport"/],
    [{ chain: [{ effect: 'echo', preset: 'x' }] }, /no preset "x"/],
    [{ chain: [{ effect: 'echo', params: { warmth: 1 } }] }, /no parameter echo.warmth/],
    [{ chain: [{ effect: 'echo', params: { feedback: 9 } }] }, /from 0 to 1.2; 9 lies outside/],
    [{ chain: [{ effect: 'echo', params: { timeL: 'soon' } }] }, /Try 1\/8d/],
    [{ chain: [{ effect: 'echo', params: { hold: 3 } }] }, /does not take 3/],
  ])('%j is refused with what is wrong', (file, message) => {
    expect(() => readChain(file, context)).toThrow(BadData);
    expect(() => readChain(file, context)).toThrow(message);
  });

  test('lanes name an effect by its place', () => {
    const slots = readChain({ chain: [{ effect: 'echo' }] }, context);
    const points = [{ beat: 0, value: 1, shape: 'line', bend: 0 }];
    expect(readLanes({ lanes: [{ effect: 0, param: 'input', points }] }, slots, 'x')[0]!.target).toEqual({
      kind: 'effect',
      channel: 'x',
      effect: 'slot-0',
      param: 'input',
    });
    expect(() => readLanes({ lanes: [{ effect: 1, param: 'input', points }] }, slots, 'x')).toThrow(/not in the chain/);
  });
});
