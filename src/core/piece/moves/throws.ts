import type { Onset } from '../../analysis/onsets';
import { beatsFrom, type Tempo } from '../../music/tempo';
import { tempoOf } from '../tempoOf';
import { paramPosition } from '../../params/resolve';
import type { Lane, Piece, Target, Track } from '../piece';
import { MIN_GAP, splitPoints } from '../../automation/editPoints';
import { laneBaseFor, type LaneBase } from './laneBase';
import type { Point } from '../../automation/point';
import { barNumber } from '../../music/grid';

/** An onset in a track. */
export interface Hit {
  readonly beat: number;
  readonly strength: number;
  readonly centroidHz: number;
}

export type HitRule =
  | { readonly kind: 'every'; readonly count: number }
  | { readonly kind: 'bright'; readonly count: number }
  | { readonly kind: 'phrase'; readonly bars: number }
  /** Share of all hits that is picked, the loudest first. */
  | { readonly kind: 'loud'; readonly share: number }
  | { readonly kind: 'gap'; readonly beats: number };

export interface ThrowSettings {
  /** Beats before the hit at which the send opens, and after it at which it closes. */
  readonly leadBeats: number;
  readonly lengthBeats: number;
  /** Level of the send while open, as a gain. */
  readonly amount: number;
  /** `open` is constant; `swell` rises up to the end; `fall` falls from the beginning. */
  readonly shape: 'open' | 'swell' | 'fall';
}

/** Least spectral centroid of a snare or a hat, in Hz. */
const BRIGHT_HZ = 1800;

/** The hits of a track in order, as its clips play them. @param onsets of a sound by its hash */
export function trackHits(piece: Piece, track: Track, onsets: (sound: string) => readonly Onset[]): Hit[] {
  const tempo = tempoOf(piece);
  // A hit that is played backwards has no onset.
  const hits = track.clips
    .filter(({ mute, reversed }) => !mute && !reversed)
    .flatMap((clip) =>
      onsets(clip.sound)
        .filter(({ seconds }) => seconds >= clip.offsetSeconds && seconds < clip.offsetSeconds + clip.lengthSeconds)
        .map(({ seconds, strength, centroidHz }): Hit => ({
          beat: clip.start + beatsFrom(clip.start, seconds - clip.offsetSeconds, tempo),
          strength: strength * clip.gain,
          centroidHz,
        })),
    );
  return hits.sort((a, b) => a.beat - b.beat);
}

/** Indexes of the hits a rule picks. @param tempo with the metres by which phrases are counted */
export function hitsByRule(hits: readonly Hit[], rule: HitRule, tempo: Tempo): number[] {
  const all = hits.map((_, i) => i);
  if (rule.kind === 'every') return all.filter((i) => (i + 1) % rule.count === 0);
  if (rule.kind === 'bright')
    return all.filter((i) => hits[i]!.centroidHz >= BRIGHT_HZ).filter((_, i) => (i + 1) % rule.count === 0);
  if (rule.kind === 'loud') {
    const count = Math.round(rule.share * hits.length);
    const loudest = [...all].sort((a, b) => hits[b]!.strength - hits[a]!.strength || a - b).slice(0, count);
    return loudest.sort((a, b) => a - b);
  }
  if (rule.kind === 'gap')
    return all.filter((i) => i === hits.length - 1 || hits[i + 1]!.beat - hits[i]!.beat >= rule.beats);
  const phrase = (i: number): number => Math.floor((barNumber(hits[i]!.beat + MIN_GAP, tempo) - 1) / rule.bars);
  return all.filter((i) => i === hits.length - 1 || phrase(i + 1) > phrase(i));
}

interface Window {
  readonly from: number;
  to: number;
}

/**
 * The lane of a send that opens for each hit and closes after it; it replaces the points there, and nothing outside.
 * Throws that overlap become one.
 * @returns null when the send does not exist
 */
export function laneFromThrows(
  piece: Piece,
  target: Target,
  hits: readonly number[],
  settings: ThrowSettings,
  newId: string,
): Lane | null {
  const on = laneBaseFor(piece, target, newId);
  if (!on || hits.length === 0) return null;
  const points = windowsOf(hits, settings).reduce(
    (before, window) => laid(before, on, window, settings),
    on.lane.points,
  );
  return { ...on.lane, on: true, points };
}

function windowsOf(hits: readonly number[], { leadBeats, lengthBeats }: ThrowSettings): Window[] {
  const windows: Window[] = [];
  for (const beat of [...hits].sort((a, b) => a - b)) {
    const from = Math.max(MIN_GAP, beat - leadBeats);
    const to = beat + Math.max(2 * MIN_GAP, lengthBeats);
    const last = windows[windows.length - 1];
    if (last && from <= last.to + 2 * MIN_GAP) last.to = Math.max(last.to, to);
    else windows.push({ from, to });
  }
  return windows;
}

function laid(points: readonly Point[], on: LaneBase, { from, to }: Window, { amount, shape }: ThrowSettings): Point[] {
  const open = on.value(paramPosition(on.param, amount));
  const [start, end] = [from - MIN_GAP, to + MIN_GAP];
  const cut = [start, end].reduce((list, beat) => splitPoints(list, beat, on.before(beat)), points);
  const before = cut
    .filter(({ beat }) => beat < start + 1e-9)
    .map((point) => (Math.abs(point.beat - start) < 1e-9 ? { ...point, shape: 'line' as const, bend: 0 } : point));
  const line = (beat: number, value: number): Point => ({ beat, value, shape: 'line', bend: 0 });
  const opened = [
    line(from, shape === 'swell' ? on.before(from) : open),
    line(to, shape === 'fall' ? on.before(to) : open),
  ];
  return [...before, ...opened, ...cut.filter(({ beat }) => beat > end - 1e-9)];
}
