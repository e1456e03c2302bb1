import { sinTurns } from './approx';

/** A sine whose phase is known from the place in the piece, so that playing from anywhere sounds as from the start. */
export class SineLfo {
  private phase = 0;

  /** @param seconds place in the piece  @param hz rate */
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
