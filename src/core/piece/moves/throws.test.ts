import fc from 'fast-check';
import { between } from '../../testing';
import { applyEdit } from '../edit';
import { addTrack } from '../edits/channels';
import { recordMove, throwHits } from '../edits/lanes';
import { addReturn, setSend } from '../edits/sends';
import { emptyPiece, type Lane, type Piece, type SendTarget } from '../piece';
import { SEND_LEVEL } from '../piece';
import { laneTrack, trackAt } from './lane';
import { paramAtPosition } from '../../params/resolve';
import { hitsByRule, laneFromThrows, trackHits, type Hit, type ThrowSettings } from './throws';

const SOUND = 'a'.repeat(64);
const channel = { gain: 1, pan: 0, mute: false, solo: false, sends: [], chain: [] };
const clip = {
  id: 'c',
  name: 'Crates',
  sound: SOUND,
  start: 8,
  offsetSeconds: 1,
  lengthSeconds: 4,
  gain: 0.5,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  print: null,
};

function piece(level: number | null): Piece {
  let made = applyEdit(emptyPiece('p', 'P'), addTrack, {
    track: { ...channel, id: 'crates', name: 'Crates', clips: [clip] },
    sounds: {},
  }).piece;
  made = applyEdit(made, addReturn, { made: { ...channel, id: 'echo', name: 'Echo' } }).piece;
  return level === null ? made : applyEdit(made, setSend, { channel: 'crates', to: 'echo', level }).piece;
}

const target: SendTarget = { kind: 'send', channel: 'crates', to: 'echo' };
const levelAt = (made: Piece, lane: Lane, beat: number): number =>
  paramAtPosition(SEND_LEVEL, trackAt(laneTrack(made, lane, SEND_LEVEL), beat));
const FOUR = { bpm: 120, beatsPerBar: 4 };
const OPEN: ThrowSettings = { leadBeats: 0.1, lengthBeats: 0.5, amount: 1, shape: 'open' };

test('hits stand where the clips play them, as loud as they play them', () => {
  const onset = (seconds: number): { seconds: number; strength: number; centroidHz: number } => ({
    seconds,
    strength: 0.8,
    centroidHz: 100,
  });
  const hits = trackHits(piece(null), piece(null).tracks[0]!, () => [0.2, 1, 2.2, 4.9, 5.1].map(onset));
  // 100 BPM: a beat is 0.6 s; the clip begins a second into its sound and is four seconds long.
  expect(hits.map(({ beat }) => Math.round(beat * 1000) / 1000)).toEqual([8, 10, 14.5]);
  expect(hits[0]!.strength).toBeCloseTo(0.4, 9);
});

test('rules pick what they say', () => {
  const hits = [0, 1, 2, 3.5, 4, 7.9, 8, 9].map((beat, i): Hit => ({
    beat,
    strength: 1,
    centroidHz: i % 2 ? 4000 : 100,
  }));
  expect(hitsByRule(hits, { kind: 'every', count: 4 }, FOUR)).toEqual([3, 7]);
  expect(hitsByRule(hits, { kind: 'bright', count: 2 }, FOUR)).toEqual([3, 7]);
  expect(hitsByRule(hits, { kind: 'phrase', bars: 1 }, FOUR)).toEqual([3, 5, 7]);
  const three = { ...FOUR, metres: [{ beat: 4, beatsPerBar: 3, unit: 4 }] };
  expect(hitsByRule(hits, { kind: 'phrase', bars: 1 }, three)).toEqual([3, 4, 7]);
  expect(hitsByRule(hits, { kind: 'gap', beats: 1.5 }, FOUR)).toEqual([2, 4, 7]);
  const struck = [0.2, 0.9, 0.5, 0.7].map((strength, beat): Hit => ({ beat, strength, centroidHz: 100 }));
  expect([0.25, 0.5, 1].map((share) => hitsByRule(struck, { kind: 'loud', share }, FOUR))).toEqual([
    [1],
    [1, 3],
    [0, 1, 2, 3],
  ]);
});

test('each shape: open at once, up to the end, from the beginning', () => {
  const made = piece(0);
  const at = (shape: ThrowSettings['shape'], beat: number): number =>
    levelAt(made, laneFromThrows(made, target, [4], { ...OPEN, shape }, 'lane')!, beat);
  expect([3.8, 3.92, 4, 4.4, 4.6].map((beat) => Math.round(1e9 * at('open', beat)) / 1e9)).toEqual([0, 1, 1, 1, 0]);
  expect(at('swell', 3.91)).toBeLessThan(0.02);
  expect(at('swell', 4.499)).toBeGreaterThan(0.97);
  expect(at('fall', 3.901)).toBeGreaterThan(0.97);
  expect(at('fall', 4.49)).toBeLessThan(0.05);
});

test('outside of its throws a lane runs on as it ran; inside the send is open; throws that touch are one', () => {
  const beats = fc.array(between(0.5, 60), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(beats, between(0, 64), between(0, 1), (hits, beat, level) => {
      const before: Lane = {
        id: 'lane',
        target,
        unit: 'own',
        on: true,
        points: [
          { beat: 2, value: level, shape: 'curve', bend: 0.4 },
          { beat: 30, value: 0.5, shape: 'hold', bend: 0 },
          { beat: 40, value: 0.1, shape: 'line', bend: 0 },
        ],
      };
      const made = applyEdit(piece(0), recordMove, { lane: before, how: 'draw' }).piece;
      const lane = laneFromThrows(made, target, hits, OPEN, 'new')!;
      const inside = hits.some((hit) => beat > hit - 0.1 + 1e-6 && beat < hit + 0.5 - 1e-6);
      const near = hits.some((hit) => beat > hit - 0.1 - 0.01 && beat < hit + 0.5 + 0.01);
      const ordered = lane.points.every((point, i) => i === 0 || point.beat > lane.points[i - 1]!.beat);
      if (inside) return ordered && Math.abs(levelAt(made, lane, beat) - 1) < 1e-6;
      return ordered && (near || Math.abs(levelAt(made, lane, beat) - levelAt(made, before, beat)) < 1e-5);
    }),
  );
});

test('a throw makes the send that is not there, shut', () => {
  const made = piece(null);
  const lane = laneFromThrows(made, target, [4, 6], OPEN, 'lane')!;
  const { piece: after, label } = applyEdit(made, throwHits, { lane, hits: 2 });
  expect(label).toBe('Throw 2 hits of Crates into Echo');
  expect(after.tracks[0]!.sends).toEqual([{ to: 'echo', level: 0, pre: false }]);
  expect(after.lanes).toHaveLength(1);
});
