import { useEffect, useMemo, useState } from 'react';
import type { Onset } from '../../core/analysis/onsets';
import { trackHits, type Hit } from '../../core/moves/throws';
import { findTrack } from '../../core/piece/find';
import { findHits } from '../../audio/hits';
import { usePiece, useStudio } from '../studio/StudioProvider';

/** The hits of a track once they are all found; null until then. Found in a worker, anew when the sheet that asks is opened. */
export function useHits(channel: string): readonly Hit[] | null {
  const piece = usePiece();
  const { studio, soundsSeen } = useStudio();
  const track = findTrack(piece, channel);
  const hashes = useMemo(() => [...new Set(track?.clips.map(({ sound }) => sound))].sort().join(' '), [track]);
  const [found, setFound] = useState<ReadonlyMap<string, readonly Onset[]>>(new Map());
  useEffect(() => {
    const sounds = hashes.split(' ').flatMap((hash) => studio.sounds.get(hash) ?? []);
    return findHits(sounds, studio.player.sampleRate, (hash, onsets) => setFound((before) => new Map([...before, [hash, onsets]])));
  }, [hashes, studio, soundsSeen]);
  return useMemo(() => {
    if (!track) return [];
    const wanted = hashes === '' ? [] : hashes.split(' ').filter((hash) => studio.sounds.has(hash));
    return wanted.every((hash) => found.has(hash)) ? trackHits(piece, track, (sound) => found.get(sound) ?? []) : null;
  }, [piece, track, hashes, found, studio]);
}
