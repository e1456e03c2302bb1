import { useMemo } from 'react';
import { FRAMES_PER_PEAK } from '../../../audio/soundLibrary';
import { gapOnGrid, gapsBetween, soundingSpans, type Span } from '../../../core/analysis/gaps';
import { beatsFrom } from '../../../core/music/tempo';
import type { Clip, Piece } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { barsBetween } from '../../../core/music/grid';
import { metreSpans } from '../../../core/music/metre';

export interface Gap extends Span {
  /** The track it is on; null where no track sounds. */
  readonly track: string | null;
}

/** -50 dB: level below which a sound counts as a gap. */
const FLOOR = 0.003;
const BREATH_SECONDS = 0.4;

/** Where a clip sounds, in beats of the piece. */
function clipSpans(piece: Piece, clip: Clip, peaks: Float32Array | undefined): Span[] {
  if (clip.mute) return [];
  const tempo = tempoOf(piece);
  const at = (seconds: number): number => clip.start + beatsFrom(clip.start, seconds, tempo);
  // Until its sound is loaded, all of the clip counts.
  if (!peaks) return [{ start: clip.start, end: at(clip.lengthSeconds) }];
  const heard = soundingSpans(
    peaks,
    FRAMES_PER_PEAK / piece.sampleRate,
    { start: clip.offsetSeconds, end: clip.offsetSeconds + clip.lengthSeconds },
    FLOOR / Math.max(1e-3, clip.gain),
    BREATH_SECONDS,
  );
  return heard.map(({ start, end }) =>
    clip.reversed
      ? { start: at(clip.lengthSeconds - end), end: at(clip.lengthSeconds - start) }
      : { start: at(start), end: at(end) },
  );
}

/**
 * The gaps of the piece of a bar or more, on whole beats: those where nothing sounds first, then those of each track.
 */
export function useGaps(): readonly Gap[] {
  const piece = usePiece();
  const { studio, soundsSeen } = useStudio();
  return useMemo(() => {
    // Computed again whenever a sound has been loaded.
    void soundsSeen;
    const tempo = tempoOf(piece);
    const shortest = Math.min(...metreSpans(tempo).map(({ beatsPerBar }) => beatsPerBar));
    const spans = piece.tracks.map(({ id, mute, clips }) => ({
      id,
      spans: mute ? [] : clips.flatMap((clip) => clipSpans(piece, clip, studio.sounds.get(clip.sound)?.peaks)),
    }));
    const gaps = (list: readonly Span[], track: string | null): Gap[] =>
      gapsBetween(list, piece.lengthBeats, shortest).flatMap((gap) => {
        const found = gapOnGrid(gap, 1);
        return found && barsBetween(found.start, found.end, tempo) >= 1 ? [{ ...found, track }] : [];
      });
    return [
      ...gaps(
        spans.flatMap((one) => one.spans),
        null,
      ),
      ...spans.flatMap((one) => gaps(one.spans, one.id)),
    ];
  }, [piece, studio, soundsSeen]);
}
