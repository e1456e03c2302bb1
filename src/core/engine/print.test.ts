import { clipOf, echoSlot, hashOf, laneOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { samplesToBeats } from '../music/tempo';
import type { PrintOrder } from '../piece/piece';
import { clipOrder, planPrint } from './print';
import { render, SILENT } from './render';
import { awayFrom, engineOf, peakIn, runEngine } from './testing';

const hit = (hz: number): Float32Array =>
  soundOf(0.5, (i) => 0.4 * Math.sin((2 * Math.PI * hz * i) / RATE) * Math.exp(-i / 4000) * Math.min(1, i / 48));
const ECHO = { timeL: '1/8d', feedback: 0.5, filter: 'low', wowDepth: 0.3 };
/** Three hits of different pitch on one track with an echo and a ridden input; another track beside it. */
const three = (): Scene =>
  scene(
    [hit(300), hit(500), hit(900)],
    [
      {
        gain: 0.7,
        pan: 0.3,
        clips: [clipOf('a', 0, 1.37, 0.5), clipOf('b', 1, 3, 0.5), clipOf('c', 2, 5, 0.5)],
        chain: [echoSlot('e', ECHO)],
      },
      { clips: [clipOf('x', 2, 3, 0.5)] },
    ],
    {
      lanes: [
        laneOf('t0', 'e', 'input', [
          [0, 0.2],
          [4, 1],
          [8, 0.5],
        ]),
      ],
    },
  );

function printed(from: Scene, order: PrintOrder): { left: Float32Array; right: Float32Array; startSample: number } {
  const job = planPrint(from.piece, order);
  const done = render({ ...job, sounds: from.sounds })!;
  return { ...done, startSample: job.fromSample };
}

test('a print laid back at its sample, on a track like its own, plays what the live effect played, to the bit', () => {
  const from = three();
  const order = clipOrder(from.piece, 'b', 'mix', 4)!;
  const print = printed(from, order);
  const alone = {
    ...from.piece,
    tracks: from.piece.tracks
      .slice(0, 1)
      .map((track) => ({ ...track, clips: track.clips.filter((clip) => clip.id === 'b') })),
  };
  const start = samplesToBeats(print.startSample, from.piece.tempo, RATE);
  const placed = {
    ...alone,
    lanes: [],
    sounds: {
      ...from.piece.sounds,
      [hashOf(7)]: { name: 'print', frames: print.left.length, sampleRate: RATE, channels: 2 as const },
    },
    tracks: alone.tracks.map((track) => ({
      ...track,
      chain: [],
      clips: [clipOf('p', 7, start, print.left.length / RATE)],
    })),
  };
  const play = (piece: Scene['piece']): Float32Array => {
    const engine = engineOf({ piece, sounds: new Map([...from.sounds, [hashOf(7), [print.left, print.right]]]) });
    engine.play(print.startSample);
    return runEngine(engine, 6).left;
  };
  expect(peakIn(play(placed))).toBeGreaterThan(0.1);
  expect(awayFrom(play(placed), play(alone))).toBe(0);
});

test('nothing of a neighbour enters the print of one clip', () => {
  const from = three();
  const print = printed(from, clipOrder(from.piece, 'b', 'wet', null)!);
  const others = {
    ...from,
    piece: {
      ...from.piece,
      tracks: from.piece.tracks.map((track) => ({ ...track, clips: track.clips.filter((clip) => clip.id === 'b') })),
    },
  };
  expect(awayFrom(print.left, printed(others, clipOrder(others.piece, 'b', 'wet', null)!).left)).toBe(0);
});

test('wet only leaves the dry sound out; wet and dry of the print add up to the mix', () => {
  const from = three();
  const wet = printed(from, clipOrder(from.piece, 'b', 'wet', 2)!).left;
  const mix = printed(from, clipOrder(from.piece, 'b', 'mix', 2)!).left;
  expect(peakIn(wet, 0, 8000)).toBe(0);
  const dry = from.sounds.get(hashOf(1))![0]!;
  expect(Math.abs(mix[3000]! - dry[3000]!)).toBeLessThan(1e-6);
});

test('until silent means until -80 dB; bars mean bars; a stretch is cut at its edges without a click', () => {
  const from = three();
  const rung = printed(from, clipOrder(from.piece, 'b', 'wet', null)!).left;
  expect(Math.abs(rung[rung.length - 1]!)).toBeGreaterThan(0);
  expect(peakIn(rung, rung.length - 30_000)).toBeGreaterThan(SILENT);
  const longer = printed(from, clipOrder(from.piece, 'b', 'wet', 30)!).left;
  expect(peakIn(longer, rung.length)).toBeLessThanOrEqual(SILENT);
  expect(longer.length).toBe(24_000 + 30 * 2 * RATE);
  const steady = scene([soundOf(4, () => 0.5)], [{ clips: [clipOf('s', 0, 0, 4)] }]);
  const stretch = printed(steady, { channel: 't0', clip: null, fromBeat: 2, toBeat: 4, part: 'mix', tailBars: 0 }).left;
  expect([stretch.length, stretch[0], stretch[24_000]]).toEqual([RATE, 0, 0.5]);
  expect(Math.abs(stretch[RATE - 1]!)).toBeLessThan(0.01);
});

test('an echo that never dies is cut and says so', () => {
  const from = scene(
    [hit(300)],
    [{ clips: [clipOf('a', 0, 0, 0.5)], chain: [echoSlot('e', { timeL: 250, feedback: 1.1 })] }],
  );
  const done = render({ ...planPrint(from.piece, clipOrder(from.piece, 'a', 'wet', null)!), sounds: from.sounds })!;
  expect(done.cutShort).toBe(true);
  expect(done.left.length).toBe(24_000 + 120 * RATE);
});

test('a print can be stopped', () => {
  const from = three();
  let told = 0;
  expect(
    render({
      ...planPrint(from.piece, clipOrder(from.piece, 'b', 'wet', null)!),
      sounds: from.sounds,
      onProgress: () => (told += 1) < 3,
    }),
  ).toBeNull();
});

const order = (channel: string, fromBeat: number, toBeat: number, more: Partial<PrintOrder> = {}): PrintOrder => ({
  channel,
  clip: null,
  fromBeat,
  toBeat,
  part: 'mix',
  tailBars: 2,
  ...more,
});

/** Both hits of one long clip, and the first of them in a file of its own. */
const [LOW, HIGH] = [hit(400), hit(700)];
const pair = (): Scene => {
  const both = soundOf(2, (i) => (i < RATE ? LOW[i] : HIGH[i - RATE]) ?? 0);
  return scene([both], [{ clips: [clipOf('a', 0, 2, 2)], chain: [echoSlot('e', ECHO)] }]);
};

test('the print of one hit of a clip holds nothing of its neighbour: it nulls with the hit rendered alone under -90 dB', () => {
  const from = pair();
  const picked = printed(from, order('t0', 2, 4, { hits: [{ from: 2, to: 4 }], part: 'wet' }));
  const alone = scene(
    [soundOf(2, (i) => LOW[i] ?? 0)],
    [{ clips: [clipOf('a', 0, 2, 2)], chain: [echoSlot('e', ECHO)] }],
  );
  const wanted = printed(alone, order('t0', 2, 4, { hits: [{ from: 2, to: 4 }], part: 'wet' }));
  expect(peakIn(picked.left)).toBeGreaterThan(0.05);
  expect(20 * Math.log10(awayFrom(picked.left, wanted.left) + 1e-12)).toBeLessThan(-90);
  // Both hits through the same order are another thing.
  const whole = printed(from, order('t0', 2, 6, { part: 'wet', tailBars: 0 })).left;
  expect(awayFrom(picked.left.slice(0, whole.length), whole.slice(0, picked.left.length))).toBeGreaterThan(0.05);
});

test('picked hits far apart are one print, each in its place, with silence of others between', () => {
  const from = three();
  const both = printed(
    from,
    order('t0', 1.37, 6, {
      part: 'dry',
      tailBars: 0,
      hits: [
        { from: 1.37, to: 3 },
        { from: 5, to: 6 },
      ],
    }),
  );
  const at = (beat: number): number => Math.round((beat - 1.37) * (RATE / 2));
  expect(peakIn(both.left, 0, at(2))).toBeGreaterThan(0.3);
  expect(peakIn(both.left, at(3), at(4.9))).toBe(0);
  expect(peakIn(both.left, at(5), at(6))).toBeGreaterThan(0.3);
});

test('a return is printed alone, before its own level, with all that is sent to it; everything is what is heard', () => {
  const from = three();
  const piece = {
    ...from.piece,
    returns: [
      {
        id: 'r',
        name: 'Space',
        gain: 0.25,
        pan: 0,
        mute: false,
        solo: false,
        sends: [],
        chain: [echoSlot('re', { ...ECHO, mix: 1 })],
      },
    ],
    tracks: from.piece.tracks.map((track) => ({ ...track, sends: [{ to: 'r', level: 0.5, pre: false }] })),
  };
  const played = (only: boolean): Float32Array => {
    const engine = engineOf({
      piece: { ...piece, returns: piece.returns.map((one) => ({ ...one, solo: only })) },
      sounds: from.sounds,
    });
    engine.play(0);
    return runEngine(engine, 4).left;
  };
  const space = printed({ piece, sounds: from.sounds }, order('r', 0, 8, { tailBars: 0 })).left;
  const solo = played(true);
  expect(peakIn(space)).toBeGreaterThan(0.02);
  expect(awayFrom(space.map((x) => x * 0.25).slice(0, 4 * RATE), solo)).toBeLessThan(1e-6);
  expect(
    awayFrom(
      printed({ piece, sounds: from.sounds }, order('main', 0, 8, { tailBars: 0 })).left.slice(0, 4 * RATE),
      played(false),
    ),
  ).toBeLessThan(1e-6);
});

test('only the effects that were asked for take part, and it rings as long as to the next hit', () => {
  const from = three();
  const piece = {
    ...from.piece,
    tracks: from.piece.tracks.map((track, i) =>
      i === 0 ? { ...track, chain: [...track.chain, echoSlot('second', { timeL: '1/4', mix: 1 })] } : track,
    ),
  };
  const first = printed({ piece, sounds: from.sounds }, order('t0', 3, 4, { effects: ['e'], untilBeat: 5 }));
  const plain = printed(from, order('t0', 3, 4, { untilBeat: 5 }));
  expect(awayFrom(first.left, plain.left)).toBe(0);
  expect(first.left.length).toBe(RATE);
});
