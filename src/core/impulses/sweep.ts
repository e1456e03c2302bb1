import { fastDeconvolve } from '../dsp/fastConvolve';

export const SWEEP_SECONDS = 6;
const FROM_HZ = 20;
const EDGE_SECONDS = 0.02;
const LEVEL = 0.5;

/**
 * An exponential sine sweep, from 20 Hz to just under half the rate (A. Farina, "Simultaneous measurement of impulse
 * response and distortion with a swept-sine technique", 2000).
 */
export function exponentialSweep(seconds: number, sampleRate: number): Float32Array {
  const length = Math.round(seconds * sampleRate);
  const climb = Math.log((0.46 * sampleRate) / FROM_HZ);
  const edge = EDGE_SECONDS * sampleRate;
  return Float32Array.from({ length }, (_, i) => {
    const phase = ((2 * Math.PI * FROM_HZ * seconds) / climb) * (Math.exp((climb * i) / length) - 1);
    const fade = Math.min(1, i / edge, (length - i) / edge);
    return LEVEL * fade * Math.sin(phase);
  });
}

/**
 * The impulse response of the room in which a sweep was recorded. Harmonic distortion of the loudspeaker precedes it,
 * and is removed with everything before the onset.
 * @param recorded one channel, from the moment the sweep began
 */
export const placeOfSweep = (recorded: Float32Array, sweep: Float32Array): Float32Array =>
  Float32Array.from(fastDeconvolve(recorded, sweep));
