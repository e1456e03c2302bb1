import { useEffect, useMemo, useState } from 'react';
import type { SoundFigures } from '../../../core/analysis/soundFigures';
import { compareJob, matchingGains } from '../../../core/engine/compare';
import type { Slot } from '../../../core/piece/piece';
import { compareAll } from '../../../audio/comparing';
import { useAudition } from '../../../data/audition';
import { usePiece, useStudio } from '../../studio/StudioProvider';

/** A chain that the channel could have. */
export interface Alternative {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  readonly chain: readonly Slot[];
}

export interface Compared {
  readonly figures: ReadonlyMap<string, SoundFigures | null>;
  readonly heard: string | null;
  /** Plays an alternative in the piece, in place of the channel's chain. */
  readonly hear: (id: string) => void;
}

/** Alternatives of a channel, heard in place and matched in loudness; auditioning ends with the view. */
export function useAlternatives(channel: string, alternatives: readonly Alternative[]): Compared {
  const piece = usePiece();
  const { studio, soundsSeen } = useStudio();
  const [figures, setFigures] = useState<ReadonlyMap<string, SoundFigures | null>>(new Map());
  const [heard, setHeard] = useState<string | null>(null);
  useEffect(() => {
    const jobs = new Map(alternatives.map(({ id, chain }) => [id, compareJob(piece, channel, chain)]));
    return compareAll(jobs, [...studio.sounds.values()], (key, found) =>
      setFigures((before) => new Map([...before, [key, found]])),
    );
  }, [piece, channel, alternatives, studio, soundsSeen]);
  const gains = useMemo(() => {
    const found = matchingGains(alternatives.map(({ id }) => figures.get(id)?.lufs ?? null));
    return new Map(alternatives.map(({ id }, i) => [id, found[i]!]));
  }, [alternatives, figures]);
  useEffect(() => {
    const chosen = alternatives.find(({ id }) => id === heard);
    useAudition.setState({
      audition: chosen ? { channel, chain: chosen.chain, gainDb: gains.get(chosen.id) ?? 0 } : null,
    });
  }, [alternatives, heard, gains, channel]);
  useEffect(() => () => useAudition.setState({ audition: null }), []);
  return { figures, heard, hear: setHeard };
}
