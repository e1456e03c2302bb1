import { kaiserSinc } from './sincTable';

const HALF_TAPS = 32;
const BETA = 10;
const PHASES = 1024;

/**
 * A sound at another rate, by a windowed sinc of 64 taps whose cutoff is at the lower of the two Nyquist frequencies.
 * Source: Julius O. Smith, "Digital Audio Resampling Home Page" (2002). Equal in every engine: its table uses only
 * functions that agree in the digits kept by single precision.
 */
export function resample(input: Float32Array, fromRate: number, toRate: number): Float32Array {
  if (fromRate === toRate) return input;
  const ratio = toRate / fromRate;
  const scale = Math.min(1, ratio) * 0.97;
  const half = Math.ceil(HALF_TAPS / scale);
  const table = kernelTable(half, scale);
  const length = Math.max(1, Math.round(input.length * ratio));
  const out = new Float32Array(length);
  const width = 2 * half;
  for (let i = 0; i < length; i += 1) {
    const from = i / ratio;
    const whole = Math.floor(from);
    const at = (from - whole) * PHASES;
    const phase = Math.floor(at);
    const blend = at - phase;
    let row = phase * width;
    let sum = 0;
    for (let k = whole - half + 1; k <= whole + half; k += 1, row += 1) {
      if (k < 0 || k >= input.length) continue;
      const here = table[row]!;
      sum += input[k]! * (here + (table[row + width]! - here) * blend);
    }
    out[i] = sum;
  }
  return out;
}

function kernelTable(half: number, scale: number): Float64Array {
  const width = 2 * half;
  const table = new Float64Array((PHASES + 1) * width);
  for (let phase = 0; phase <= PHASES; phase += 1) {
    let sum = 0;
    for (let k = 0; k < width; k += 1) {
      const distance = (k - half + 1 - phase / PHASES) * scale;
      const value = kaiserSinc(distance, half * scale, BETA);
      table[phase * width + k] = value;
      sum += value;
    }
    for (let k = 0; k < width; k += 1) table[phase * width + k] = table[phase * width + k]! / sum;
  }
  return table;
}
