import { useEffect, useMemo, useState } from 'react';
import type { Onset } from '../../../core/analysis/onsets';
import { trackHits, type Hit } from '../../../core/piece/moves/throws';
import { findTrack } from '../../../core/piece/find';
import type { Clip, Track } from '../../../core/piece/piece';
import { findHits } from '../../../audio/hits';
import { usePiece, useStudio } from '../../studio/StudioProvider';

/**
 * The onsets of sounds once they are all found; null until then. Found in a worker, anew when what asks is opened.
 * @param hashes of the sounds, in order, by spaces
 */
function useOnsets(hashes: string): ((sound: string) => readonly Onset[]) | null {
  const { studio, soundsSeen } = useStudio();
  const [found, setFound] = useState<ReadonlyMap<string, readonly Onset[]>>(new Map());
  useEffect(() => {
    const sounds = hashes.split(' ').flatMap((hash) => studio.sounds.get(hash) ?? []);
    if (sounds.length === 0) return undefined;
    return findHits(sounds, studio.player.sampleRate, (hash, onsets) =>
      setFound((before) => new Map([...before, [hash, onsets]])),
    );
  }, [hashes, studio, soundsSeen]);
  return useMemo(() => {
    const wanted = hashes === '' ? [] : hashes.split(' ').filter((hash) => studio.sounds.has(hash));
    return wanted.every((hash) => found.has(hash)) ? (sound) => found.get(sound) ?? [] : null;
  }, [hashes, found, studio]);
}

const hashesOf = (clips: readonly Clip[]): string => [...new Set(clips.map(({ sound }) => sound))].sort().join(' ');

/** The hits of a track once they are all found; null until then. */
export function useHits(channel: string): readonly Hit[] | null {
  const piece = usePiece();
  const track = findTrack(piece, channel);
  const onsets = useOnsets(useMemo(() => hashesOf(track?.clips ?? []), [track]));
  return useMemo(() => (track && onsets ? trackHits(piece, track, onsets) : track ? null : []), [piece, track, onsets]);
}

/**
 * Beats of the hits of a clip, and of all others that are heard; none before they are found or while they are not
 * wanted.
 */
export function useClipHits(
  clip: Clip,
  wanted: boolean,
): { readonly own: readonly number[]; readonly others: readonly number[] } {
  const piece = usePiece();
  const onsets = useOnsets(
    useMemo(() => (wanted ? hashesOf(piece.tracks.flatMap(({ clips }) => clips)) : ''), [piece, wanted]),
  );
  return useMemo(() => {
    if (!onsets || !wanted) return { own: [], others: [] };
    const beats = (tracks: readonly Track[]): number[] =>
      tracks.flatMap((track) => trackHits(piece, track, onsets).map(({ beat }) => beat));
    const owner = piece.tracks.find(({ clips }) => clips.some(({ id }) => id === clip.id));
    const others = piece.tracks
      .filter(({ mute }) => !mute)
      .map((track) => ({ ...track, clips: track.clips.filter(({ id }) => id !== clip.id) }));
    return { own: owner ? beats([{ ...owner, clips: [clip] }]) : [], others: beats(others) };
  }, [piece, clip, onsets, wanted]);
}
