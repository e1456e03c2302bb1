import { effectOf } from '../effects/catalogue';
import type { Param, ParamValue, ValueContext } from '../params/param';
import { channelParams, MAIN, type Clip, type Lane, type Piece, type Slot, type Target, type Track } from './piece';

export const contextOf = (piece: Pick<Piece, 'tempo' | 'sampleRate'>): ValueContext => ({ tempo: piece.tempo, sampleRate: piece.sampleRate });

export const findTrack = (piece: Piece, trackId: string): Track | undefined => piece.tracks.find((track) => track.id === trackId);

export const chainOf = (piece: Piece, channel: string): readonly Slot[] =>
  channel === MAIN ? piece.main.chain : (findTrack(piece, channel)?.chain ?? []);

export const channelName = (piece: Piece, channel: string): string => (channel === MAIN ? 'Main' : (findTrack(piece, channel)?.name ?? 'gone'));

export const findSlot = (piece: Piece, channel: string, slotId: string): Slot | undefined => chainOf(piece, channel).find((slot) => slot.id === slotId);

export function findClip(piece: Piece, clipId: string): { track: Track; clip: Clip } | undefined {
  for (const track of piece.tracks) {
    const clip = track.clips.find((candidate) => candidate.id === clipId);
    if (clip) return { track, clip };
  }
  return undefined;
}

export const sameTarget = (a: Target, b: Target): boolean => a.channel === b.channel && a.effect === b.effect && a.param === b.param;

export const findLane = (piece: Piece, target: Target): Lane | undefined => piece.lanes.find((lane) => sameTarget(lane.target, target));

/** The parameter a target names, or undefined when its channel, effect or parameter is not there. */
export function paramOf(piece: Piece, target: Target): Param | undefined {
  if (target.channel !== MAIN && !findTrack(piece, target.channel)) return undefined;
  if (target.effect === null) return (channelParams as Record<string, Param>)[target.param];
  const slot = findSlot(piece, target.channel, target.effect);
  return slot ? effectOf(slot.effect).params[target.param] : undefined;
}

/** The base value a target has without its lane. */
export function baseValue(piece: Piece, target: Target): ParamValue | undefined {
  if (target.effect !== null) {
    const slot = findSlot(piece, target.channel, target.effect);
    return slot?.values[target.param] ?? (slot ? effectOf(slot.effect).params[target.param]?.initial : undefined);
  }
  if (target.channel === MAIN) return target.param === 'gain' ? piece.main.gain : undefined;
  const track = findTrack(piece, target.channel);
  return target.param === 'gain' ? track?.gain : track?.pan;
}
