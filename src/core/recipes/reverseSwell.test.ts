import { findOnsets } from '../analysis/onsets';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import { trackHits } from '../piece/moves/throws';
import { beatsToSamples } from '../music/tempo';
import { applyEdit } from '../piece/edit';
import { addTrack } from '../piece/edits/channels';
import type { Clip, Piece } from '../piece/piece';
import { makeSaltPier } from '../sounds/saltPier';
import { hitSources, peakFrame, swellClip, swellJob, takeHit, type SwellSettings } from './reverseSwell';

let known = 0;
const newHash = (): string => String((known += 1)).padStart(64, '0');
const demo = makeSaltPier(newHash);
const sounds = new Map(demo.sounds.map(({ hash, channels }) => [hash, channels as Float32Array[]]));
const { sampleRate } = demo.piece;

/** A swell into every hit of a track that has room for one, alone on a track of its own. */
function swells(
  trackId: string,
  lengthBeats: number,
): { readonly made: Piece; readonly clips: readonly Clip[]; readonly hits: readonly number[] } {
  const settings: SwellSettings = { length: { beats: lengthBeats }, space: 'hall', highCutHz: 9000, level: 0.7 };
  const track = demo.piece.tracks.find(({ id }) => id === trackId)!;
  const piece: Piece = { ...demo.piece, tracks: [track] };
  const hits = trackHits(piece, track, (hash) => findOnsets(sounds.get(hash)![0]!, sampleRate));
  const clips: Clip[] = [];
  const at: number[] = [];
  const infos: Piece['sounds'] = {};
  hitSources(
    piece,
    track,
    hits,
    hits.map((_, i) => i),
    'chosen',
  ).forEach((source, i) => {
    const hit = takeHit(sounds.get(source.sound)!, source, sampleRate);
    const { job, sounds: given } = swellJob(piece, hit, source.beat, settings);
    const { left, right } = render({
      ...job,
      sounds: new Map(given.map(({ hash, channels }) => [hash, channels as Float32Array[]])),
    })!;
    const hash = newHash();
    const clip = swellClip(piece, source, [left, right], hit, settings, hash, `s${i}`);
    if (!clip) return;
    sounds.set(hash, [left, right]);
    infos[hash] = { name: 'swell', frames: left.length, sampleRate, channels: 2 };
    clips.push(clip);
    at.push(source.beat);
  });
  const made = applyEdit(piece, addTrack, {
    track: { id: 'swells', name: 'Swells', gain: 1, pan: 0, mute: false, solo: true, chain: [], sends: [], clips },
    sounds: infos,
  }).piece;
  return { made, clips, hits: at };
}

test('a swell into every hit: its energy peaks on the hit within 2 ms, it ends there without a click, and the hit before stays clear for 50 ms', () => {
  const { made, clips, hits } = swells('crates', 1);
  expect(clips.length).toBeGreaterThan(8);
  const end = beatsToSamples(made.lengthBeats, made.tempo, sampleRate);
  const { left, right } = render({
    plan: compilePlan(made),
    sounds,
    fromSample: 0,
    toSample: end,
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  const every = trackHits(made, made.tracks[0]!, (hash) => findOnsets(sounds.get(hash)![0]!, sampleRate)).map(
    ({ beat }) => beatsToSamples(beat, made.tempo, sampleRate),
  );
  clips.forEach((clip, i) => {
    const from = beatsToSamples(clip.start, made.tempo, sampleRate);
    const hit = beatsToSamples(hits[i]!, made.tempo, sampleRate);
    const part = [left, right].map((channel) => channel.subarray(from, hit + Math.round(0.012 * sampleRate)));
    expect(Math.abs(from + peakFrame(part, sampleRate) - hit)).toBeLessThanOrEqual(0.002 * sampleRate);
    const top = Math.max(...part.map((channel) => channel.reduce((a, x) => Math.max(a, Math.abs(x)), 0)));
    const last = hit + Math.round(clip.lengthSeconds * sampleRate - (hit - from)) - 1;
    for (const edge of [from, last]) expect(Math.abs(left[edge]!)).toBeLessThan(1e-3 * top);
    expect(Math.abs(left[last + 1]!)).toBe(0);
    const before = every.filter((one) => one < hit).pop();
    if (before !== undefined) expect(from).toBeGreaterThanOrEqual(before + 0.05 * sampleRate);
  });
}, 60_000);

test('it comes up to the level asked for, begins on the grid and grows towards the hit', () => {
  const { made, clips, hits } = swells('hum', 2);
  const { left } = render({
    plan: compilePlan(made),
    sounds,
    fromSample: 0,
    toSample: beatsToSamples(made.lengthBeats, made.tempo, sampleRate),
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  let grown = 0;
  clips.forEach((clip, i) => {
    expect(Math.abs(clip.start * 4 - Math.round(clip.start * 4))).toBeLessThan(1e-3);
    const from = beatsToSamples(clip.start, made.tempo, sampleRate);
    const hit = beatsToSamples(hits[i]!, made.tempo, sampleRate);
    const power = (share: number): number =>
      left
        .subarray(from + Math.round((hit - from) * (share - 0.5)), from + Math.round((hit - from) * share))
        .reduce((sum, x) => sum + x * x, 0);
    // A very short one is a few reflections and no more.
    if (clip.lengthSeconds < 0.5) return;
    grown += 1;
    // A sung note comes up softly, so the last moments before it are no louder than those before them.
    expect(power(0.5)).toBeLessThan(power(1));
  });
  expect(grown).toBeGreaterThan(0);
}, 60_000);

test('a swell goes on over hits that have none, or stays clear of every hit', () => {
  const track = demo.piece.tracks.find(({ id }) => id === 'crates')!;
  const hits = [1, 2, 3, 4].map((beat) => ({ beat, strength: 1, centroidHz: 500 }));
  const begin = (clearOf: 'chosen' | 'every'): number[] =>
    hitSources(demo.piece, track, hits, [3, 1], clearOf).map(({ clearBeat }) => clearBeat);
  const clear = (beat: number): number => beat + 0.05 * (demo.piece.tempo.bpm / 60);
  expect(begin('chosen')).toEqual([0, expect.closeTo(clear(2), 3)]);
  expect(begin('every')).toEqual([expect.closeTo(clear(1), 3), expect.closeTo(clear(3), 3)]);
});
