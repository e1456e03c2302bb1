import type { SoundData } from '../../../core/dsp/soundData';
import { crossingNear } from '../../../core/analysis/zeroCrossing';
import { clipEnd } from '../../../core/piece/clipEdges';
import { nudged } from '../../../core/piece/nudge';
import type { Clip, Piece } from '../../../core/piece/piece';

/** Maximum shift of a free cut to a zero crossing. */
const REACH_SECONDS = 0.002;

/**
 * Beat of the zero crossing nearest to an edge that was trimmed freely.
 * @param channels of its sound, at the piece's rate
 */
export function cleanEdge(piece: Piece, clip: Clip, side: 'start' | 'end', channels: SoundData): number {
  const late = (side === 'end') !== (clip.reversed ?? false);
  const frame = Math.round((clip.offsetSeconds + (late ? clip.lengthSeconds : 0)) * piece.sampleRate);
  const by = (crossingNear(channels, frame, Math.round(REACH_SECONDS * piece.sampleRate)) - frame) / piece.sampleRate;
  return nudged(
    piece,
    side === 'start' ? clip.start : clipEnd(piece, clip),
    { name: '', seconds: clip.reversed ? -by : by },
    1,
  );
}
