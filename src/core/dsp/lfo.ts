import { sinTurns } from './approx';

/** A sine LFO whose phase depends on the position in the piece alone, so that playing from anywhere sounds the same. */
export class SineLfo {
  private phase = 0;

  /** @param seconds position in the piece  @param hz rate */
  locate(seconds: number, hz: number): void {
    const turns = seconds * hz;
    this.phase = turns - Math.floor(turns);
  }

  /** Adds `amount * sin` to `n` samples of `io`. */
  addTo(io: Float64Array, n: number, hz: number, sampleRate: number, from: number, to: number): void {
    const turn = hz / sampleRate;
    const step = (to - from) / n;
    let phase = this.phase;
    let amount = from;
    for (let i = 0; i < n; i += 1) {
      phase += turn;
      amount += step;
      io[i] = io[i]! + amount * sinTurns(phase);
    }
    this.phase = phase - Math.floor(phase);
  }

  /** Moves on by `n` samples. */
  skip(n: number, hz: number, sampleRate: number): void {
    const phase = this.phase + (n * hz) / sampleRate;
    this.phase = phase - Math.floor(phase);
  }

  /** Moves on by `n` samples and gives the value there. */
  advance(n: number, hz: number, sampleRate: number): number {
    this.skip(n, hz, sampleRate);
    return sinTurns(this.phase);
  }
}

export const LFO_SHAPES = ['sine', 'triangle', 'square', 'fall', 'rise'] as const;
/** Minimum share of a cycle over which a jump is ramped, so that it never clicks. */
const EDGE = 0.02;

/**
 * A shape of period 1, from -1 to 1.
 * @param kind index in LFO_SHAPES
 * @param turns any phase
 * @param edge share of a cycle over which a jump is ramped
 */
export function shapeAt(kind: number, turns: number, edge = EDGE): number {
  if (kind === 0) return sinTurns(turns);
  const phase = turns - Math.floor(turns);
  if (kind === 1) return phase < 0.25 ? 4 * phase : phase < 0.75 ? 2 - 4 * phase : 4 * phase - 4;
  if (kind === 2) return clampUnit((phase < 0.25 ? phase : phase < 0.75 ? 0.5 - phase : phase - 1) / (0.5 * edge));
  const fall = phase < edge ? (2 * phase) / edge - 1 : 1 - (2 * (phase - edge)) / (1 - edge);
  return kind === 3 ? fall : -fall;
}

const clampUnit = (x: number): number => (x > 1 ? 1 : x < -1 ? -1 : x);
