import { fastConvolve } from '../dsp/fastConvolve';
import { makeRandom } from '../dsp/random';
import { roomImpulse, type Room } from './room';

/** The room of the simulated microphone. */
export const STAND_IN_ROOM: Room = {
  box: [7.4, 10.2, 5.1],
  walls: ['plaster', 'plaster', 'planks', 'plaster', 'concrete', 'planks'],
  source: [2.3, 2.6, 1.6],
  listener: [4.6, 6.9, 1.7],
  scattering: 0.25,
};

const CLAP_AFTER_SECONDS = 0.6;
const CLAP_SECONDS = 0.0015;
/** A quiet room with a good microphone. */
const NOISE = 2e-4;
const LOUDEST = 0.6;

/** One clap, a while after the beginning of a recording. */
export function handClap(seconds: number, sampleRate: number): Float32Array {
  const random = makeRandom(77);
  const [from, length] = [Math.round(CLAP_AFTER_SECONDS * sampleRate), Math.round(CLAP_SECONDS * sampleRate)];
  return Float32Array.from({ length: Math.round(seconds * sampleRate) }, (_, i) =>
    i >= from && i < from + length ? (random() * 2 - 1) * (1 - (i - from) / length) : 0,
  );
}

/** A sound as recorded in the simulated room: with its stereo response and noise, limited to full scale. */
export function standInHears(played: Float32Array, sampleRate: number): [Float32Array, Float32Array] {
  const room = roomImpulse(STAND_IN_ROOM, sampleRate);
  const sides = [fastConvolve(played, room.left), fastConvolve(played, room.right)];
  const peak = sides.reduce((most, side) => side.reduce((high, x) => Math.max(high, Math.abs(x)), most), 1e-9);
  const random = makeRandom(41);
  const heard = (side: Float64Array): Float32Array =>
    Float32Array.from(played, (_, i) => (side[i]! * LOUDEST) / peak + NOISE * (random() * 2 - 1));
  return [heard(sides[0]!), heard(sides[1]!)];
}
