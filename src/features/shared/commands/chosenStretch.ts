import { clearClips, clipsWithin, layClips } from '../../../core/piece/edits/clipRange';
import type { Clip, Track } from '../../../core/piece/piece';
import { reasonOf } from '../../../core/reasonOf';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { stretchActions } from '../../../data/stretchActions';
import { useView } from '../../../data/view';

/** A range chosen on the ruler, in beats: of the moves in view, or of the clips of a track. */
export interface ChosenStretch {
  readonly kind: 'stretch';
  readonly moves: boolean;
  readonly start: number;
  readonly end: number;
  /** Undefined where the channel in view has no clips. */
  readonly track: Track | undefined;
}

const NO_LANES = 'There are no moves in view to work on: add a lane first.';
const NO_CLIPS = 'No clip of the track in view sounds there.';

const { run, say, undo } = useOpenPiece.getState();

/** The clips within a range. @returns null where there are none or it cannot be cut there, which is reported */
export function clipsOf(chosen: ChosenStretch): readonly Clip[] | null {
  try {
    const clips = chosen.track ? clipsWithin(useOpenPiece.getState().piece!, chosen.track, chosen) : [];
    if (clips.length > 0) return clips;
    say(NO_CLIPS);
  } catch (error) {
    say(reasonOf(error));
  }
  return null;
}

export function copyMoves(): boolean {
  const done = stretchActions()?.copy() ?? false;
  say(done ? 'The moves are copied. Paste puts them at the playhead.' : NO_LANES);
  return done;
}

export function clearStretch({ moves, track, start, end }: ChosenStretch): void {
  if (moves) {
    if (!stretchActions()?.clear()) say(NO_LANES);
  } else if (!track) say(NO_CLIPS);
  else if (run(clearClips, { track: track.id, start, end, ids: track.clips.map(newId) }))
    say('The stretch is cleared.', { label: 'Undo', act: undo });
}

/** A copied range of a track. */
export interface CopiedStretch {
  readonly clips: readonly Clip[];
  readonly start: number;
  readonly end: number;
}

/** Pastes a range onto a track, a number of beats later than it was, replacing what sounds there. */
export function placeStretch(track: Track, { clips, start, end }: CopiedStretch, by: number, what: string): boolean {
  const placed = clips.map((clip) => ({ ...clip, id: newId(), start: clip.start + by }));
  const ids = track.clips.map(newId);
  return run(layClips, { track: track.id, start: start + by, end: end + by, ids, clips: placed, what });
}

/** Repeats a range after itself and chooses the copy, so that the key can be pressed repeatedly. */
export function repeatStretch(chosen: ChosenStretch): void {
  const { start, end, track } = chosen;
  const by = end - start;
  if (chosen.moves) {
    if (!stretchActions()?.repeat()) return say(NO_LANES);
  } else {
    const clips = clipsOf(chosen);
    if (!clips || !track || !placeStretch(track, { clips, start, end }, by, 'Repeat a stretch of')) return;
  }
  const { lengthBeats } = useOpenPiece.getState().piece!;
  if (start + by < lengthBeats)
    useView.setState({ range: { start: start + by, end: Math.min(end + by, lengthBeats) } });
}
