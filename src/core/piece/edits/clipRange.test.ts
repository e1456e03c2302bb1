import fc from 'fast-check';
import { beatsToSamples } from '../../music/tempo';
import { between } from '../../testing';
import { clipEnd } from '../clipEdges';
import { applyEdit, EditRefused } from '../edit';
import type { Clip, Piece } from '../piece';
import { tempoOf } from '../tempoOf';
import { clearClips, clipsWithin, layClips } from './clipRange';
import { clipOf } from '../testing';
import { start } from './testing';

const clip = (id: string, at: number, more: Partial<Clip> = {}): Clip =>
  clipOf(id, 0, at, 2, { name: `Clip ${id}`, ...more });
const withClips = (...clips: readonly Clip[]): Piece => ({
  ...start,
  lengthBeats: 16,
  tracks: start.tracks.map((track, i) => (i === 0 ? { ...track, clips: [...clips] } : track)),
});
const IDS = ['x', 'y', 'z'];

/** Which sample of its sound is heard at every sample of a track, and -1 where nothing is; clips may not overlap. */
function heard(piece: Piece): Int32Array {
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const out = new Int32Array(at(piece.lengthBeats)).fill(-1);
  for (const { start: beat, offsetSeconds, lengthSeconds, reversed } of piece.tracks[0]!.clips) {
    const [offset, length] = [offsetSeconds, lengthSeconds].map((s) => Math.round(s * piece.sampleRate)) as [
      number,
      number,
    ];
    for (let i = 0; i < length; i += 1) out[at(beat) + i] = offset + (reversed ? length - 1 - i : i);
  }
  return out;
}

const anyStretch = fc
  .tuple(between(0, 10), between(0.1, 6))
  .map(([from, length]) => ({ start: from, end: from + length }));

test('clearing a stretch silences it and leaves every other sample where it was', () => {
  fc.assert(
    fc.property(anyStretch, fc.boolean(), (stretch, reversed) => {
      const piece = withClips(
        clip('a', 0.37, { reversed }),
        clip('b', 5.25, { reversed, offsetSeconds: 0.25, lengthSeconds: 1.5 }),
      );
      fc.pre(clipsWithin(piece, piece.tracks[0]!, stretch).length > 0);
      const cleared = applyEdit(piece, clearClips, { track: 'a', ...stretch, ids: IDS }).piece;
      const [before, after] = [heard(piece), heard(cleared)];
      const edges = [stretch.start, stretch.end].map((beat) => beatsToSamples(beat, tempoOf(piece), piece.sampleRate));
      // What is shorter than a clip may be goes with the stretch.
      const least = 0.005 * piece.sampleRate + 1;
      const wrong = before.findIndex((sample, i) => {
        if (i >= edges[0]! && i < edges[1]!) return after[i] !== -1;
        return (i < edges[0]! - least || i >= edges[1]! + least) && after[i] !== sample;
      });
      expect(wrong).toBe(-1);
    }),
    { numRuns: 20 },
  );
});

test('what was cleared, laid back where it was, sounds as before', () => {
  const piece = withClips(clip('a', 1, { reversed: true }), clip('b', 6));
  const stretch = { start: 2.5, end: 7 };
  const taken = clipsWithin(piece, piece.tracks[0]!, stretch).map((part, i) => ({ ...part, id: `part ${i}` }));
  expect(taken.map(({ start: at }) => at)).toEqual([2.5, 6]);
  const cleared = applyEdit(piece, clearClips, { track: 'a', ...stretch, ids: IDS }).piece;
  const back = applyEdit(cleared, layClips, {
    track: 'a',
    ...stretch,
    ids: IDS,
    clips: taken,
    what: 'Paste a stretch on',
  });
  expect(back.label).toBe('Paste a stretch on Track a');
  const then = heard(back.piece);
  expect(heard(piece).findIndex((sample, i) => then[i] !== sample)).toBe(-1);
});

test('a clip within which the stretch lies is left on both sides of it, the later part under an id of its own', () => {
  const { piece } = applyEdit(withClips(clip('a', 0)), clearClips, { track: 'a', start: 1, end: 2, ids: IDS });
  const [first, second] = piece.tracks[0]!.clips;
  expect([first!.id, second!.id]).toEqual(['a', 'x']);
  expect(second!.start).toBe(2);
  expect(clipEnd(piece, second!)).toBeCloseTo(clipEnd(piece, clip('a', 0)), 6);
});

test('clips are not cut where they fade; nothing is done then', () => {
  const piece = withClips(clip('a', 0, { fadeInSeconds: 1 }));
  const cut = (): unknown => applyEdit(piece, clearClips, { track: 'a', start: 0.5, end: 9, ids: IDS });
  expect(cut).toThrow(EditRefused);
  expect(cut).toThrow('Clip a is cut where it does not fade');
  expect(clipsWithin(piece, piece.tracks[0]!, { start: 0, end: 9 })).toEqual([clip('a', 0, { fadeInSeconds: 1 })]);
});

test('an empty stretch, an id that is there and a sound that is not are refused; pasted clips make room', () => {
  const piece = withClips(clip('a', 0));
  expect(() => applyEdit(piece, clearClips, { track: 'a', start: 20, end: 24, ids: IDS })).toThrow(
    'No clip sounds there',
  );
  const paste = (one: Clip) =>
    applyEdit(piece, layClips, {
      track: 'b',
      start: one.start,
      end: one.start + 2,
      ids: IDS,
      clips: [one],
      what: 'Paste a stretch on',
    });
  expect(() => paste(clip('a', 8))).toThrow('id is in the piece');
  expect(() => paste(clip('n', 8, { sound: '1'.repeat(64) }))).toThrow('not in this piece');
  const late = paste(clip('n', piece.lengthBeats + 3)).piece;
  expect(late.lengthBeats).toBeGreaterThanOrEqual(clipEnd(late, late.tracks[1]!.clips[0]!));
});

test('a stretch that is laid over clips takes their place, and no more of it', () => {
  const piece = withClips(clip('a', 0), clip('b', 6));
  const laid = [clip('n', 2, { lengthSeconds: 0.5, offsetSeconds: 1 })];
  const stretch = { start: 1.5, end: 7 };
  const done = applyEdit(piece, layClips, {
    track: 'a',
    ...stretch,
    ids: IDS,
    clips: laid,
    what: 'Repeat a stretch of',
  });
  expect(done.label).toBe('Repeat a stretch of Track a');
  expect(done.piece.tracks[0]!.clips.map(({ id, start: at }) => [id, at])).toEqual([
    ['a', 0],
    ['b', 7],
    ['n', 2],
  ]);
  expect(clipEnd(done.piece, done.piece.tracks[0]!.clips[0]!)).toBeCloseTo(1.5, 4);
});

test('clips outside a stretch stay as they are, however short', () => {
  const short = clip('s', 8, { lengthSeconds: 0.001 });
  const least = clip('l', 9.3, { lengthSeconds: 0.005 });
  const { piece } = applyEdit(withClips(clip('a', 0), short, least), clearClips, {
    track: 'a',
    start: 0,
    end: 4,
    ids: IDS,
  });
  expect(piece.tracks[0]!.clips).toEqual([short, least]);
});

test('a clip that ends between two samples at the edge of a stretch is not cut there, and keeps its fade', () => {
  fc.assert(
    fc.property(between(0.5, 3), fc.integer({ min: 1, max: 12 }), (lengthSeconds, beats) => {
      const piece = withClips();
      // It ends on the beat, as near as its length can say it.
      const end = beats + 4;
      const start = Math.max(0, end - (lengthSeconds * piece.tempo.bpm) / 60);
      const exact = ((end - start) * 60) / piece.tempo.bpm;
      const fading = clip('a', start, { lengthSeconds: exact, fadeOutSeconds: 0.3, offsetSeconds: 0 });
      const held = withClips(fading);
      expect(clipsWithin(held, held.tracks[0]!, { start: 0, end })).toEqual([fading]);
      expect(clipsWithin(held, held.tracks[0]!, { start: end, end: end + 8 })).toEqual([]);
    }),
  );
});
