import type { SoundData } from '../dsp/soundData';
import { STEP_FRAMES } from '../dsp/blocks';
import type { Follower } from '../automation/modulator';
import type { FollowedLevels } from '../automation/follower';
import { samplesToBeats } from '../music/tempo';
import { channelOfTarget, findTrack } from '../piece/find';
import type { Piece } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import { Engine } from './engine';
import { compilePlan } from './compilePlan';

/** Output of an envelope follower over the piece, computed by running the engine on what it follows. */
export function followThrough(
  piece: Piece,
  modulator: Follower,
  sounds: ReadonlyMap<string, SoundData>,
): FollowedLevels {
  const track = findTrack(piece, modulator.follows ?? '');
  if (!track) return { beats: new Float64Array(0), values: new Float64Array(0) };
  const alone: Piece = {
    ...piece,
    tracks: [{ ...track, chain: [], sends: [], mute: false, solo: false }],
    returns: [],
    main: { ...piece.main, chain: [] },
    modulators: [modulator],
    links: [],
    loop: { ...piece.loop, on: false },
    lanes: piece.lanes.filter(({ target }) => channelOfTarget(target) !== track.id),
  };
  const engine = new Engine(piece.sampleRate);
  for (const [hash, data] of sounds) engine.addSound(hash, data);
  const plan = compilePlan(alone);
  engine.setPlan(plan);
  engine.play(0);
  const beats: number[] = [];
  const values: number[] = [];
  const left = new Float32Array(STEP_FRAMES);
  const right = new Float32Array(STEP_FRAMES);
  const tempo = tempoOf(piece);
  while (engine.position < plan.lengthSamples) {
    engine.process(left, right, STEP_FRAMES);
    beats.push(samplesToBeats(engine.position, tempo, piece.sampleRate));
    values.push(engine.modulatorOutputOf(0));
  }
  return { beats: Float64Array.from(beats), values: Float64Array.from(values) };
}
