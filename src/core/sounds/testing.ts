import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import { beatsToSamples } from '../music/tempo';
import type { Demo } from './demo';
import { SOUND_RATE } from './tools';

export interface Stereo {
  readonly left: Float32Array;
  readonly right: Float32Array;
}

/** A demo between two beats, or some tracks of it alone, without effects and returns. */
export function heardParts(demo: Demo, tracks: readonly string[] | null, fromBeat: number, toBeat: number): Stereo {
  const kept = demo.piece.tracks
    .filter((track) => !tracks || tracks.includes(track.id))
    .map((track) => (tracks ? { ...track, chain: [], sends: [] } : track));
  return render({
    plan: compilePlan({ ...demo.piece, tracks: kept }),
    sounds: new Map(demo.sounds.map((sound) => [sound.hash, sound.channels])),
    fromSample: beatsToSamples(fromBeat, demo.piece.tempo, SOUND_RATE),
    toSample: beatsToSamples(toBeat, demo.piece.tempo, SOUND_RATE),
    tail: { kind: 'seconds', seconds: 0 },
  })!;
}

/** Energy at each of the twelve pitch classes between two frequencies. */
export function chroma(samples: Float32Array, from: number, to: number, lowNote: number, highNote: number): number[] {
  const energy = new Array<number>(12).fill(0);
  for (let note = lowNote; note <= highNote; note += 1) {
    const hz = 440 * Math.pow(2, (note - 69) / 12);
    const turn = (2 * Math.PI * hz) / SOUND_RATE;
    let re = 0;
    let im = 0;
    for (let i = from; i < to; i += 1) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i - from)) / (to - from));
      re += window * samples[i]! * Math.cos(turn * i);
      im += window * samples[i]! * Math.sin(turn * i);
    }
    energy[note % 12] = energy[note % 12]! + re * re + im * im;
  }
  return energy;
}
