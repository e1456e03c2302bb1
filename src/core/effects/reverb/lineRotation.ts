import { sinTurns } from '../../dsp/approx';
import { NETWORK_FRAMES, NETWORK_LINES, PAIRS, type NetworkMemory } from '../../dsp/networkMemory';

/** Rotation rate of the slowest pair, a third of the fastest: of the output gains, and of the lines inside the loop. */
const OUTPUT_ROTATION_HZ = 2.5;
const LOOP_ROTATION_HZ = 0.8;
const GAINS = 2 * NETWORK_LINES;
/** Mean line length at which the loop rotates at LOOP_ROTATION_HZ; shorter lines recirculate more often and rotate more slowly. */
const REFERENCE_SECONDS = 0.05;
/** Phase offset from pair to pair, in turns. */
const APART = 0.381966;

/**
 * Rotates pairs of lines of a feedback delay network slowly, so that no mode keeps its energy, and pairs of its output gains, so that no
 * mode keeps its level at the output. Rotations are orthogonal: decays stay as they are, and no line changes its length.
 * Source: S. J. Schlecht and E. A. P. Habets, "Time-varying feedback matrices in feedback delay networks and their application in
 * artificial reverberation" (2015).
 */
export class LineRotation {
  private readonly outputPhases = new Float64Array(PAIRS);
  private readonly loopPhases = new Float64Array(PAIRS);
  /** Output gains before and after rotation; then cosines and sines of the loop's rotation, one of each a pair. */
  private readonly unrotatedGains = new Float64Array(GAINS);
  private readonly rotatedGains = new Float64Array(GAINS);
  private readonly rotations = new Float64Array(2 * PAIRS);
  private speed = 0;
  private settled = false;

  /** @param memory of the network, whose output gains are not rotated yet */
  constructor(
    private readonly memory: NetworkMemory,
    private readonly sampleRate: number,
  ) {
    memory.rotations.fill(1, 0, PAIRS);
    for (let i = 0; i < GAINS; i += 1) this.unrotatedGains[i] = memory.outGains[i]!;
  }

  /** Sets all phases to a time. */
  locate(seconds: number): void {
    for (let pair = 0; pair < PAIRS; pair += 1) {
      this.outputPhases[pair] = wrapped(pair * APART + seconds * rateOf(OUTPUT_ROTATION_HZ, pair));
      this.loopPhases[pair] = wrapped(pair * APART + seconds * this.speed * rateOf(LOOP_ROTATION_HZ, pair));
    }
    this.settled = false;
  }

  /** @param meanSeconds mean length of a space's lines  @param rotates false leaves the lines of the loop unmixed, for a space that keeps them apart */
  setSpace(meanSeconds: number, rotates: boolean): void {
    this.speed = rotates ? Math.sqrt(meanSeconds / REFERENCE_SECONDS) : 0;
    this.settled = false;
  }

  /** Prepares linear ramps to the rotations at the end of the step. @param share of the full rate, 0-1 */
  prepare(share: number): void {
    if (!this.settled) {
      this.updateRotations();
      this.commit();
      this.settled = true;
    }
    const step = (share * NETWORK_FRAMES) / this.sampleRate;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      this.outputPhases[pair] = wrapped(this.outputPhases[pair]! + step * rateOf(OUTPUT_ROTATION_HZ, pair));
      this.loopPhases[pair] = wrapped(this.loopPhases[pair]! + step * this.speed * rateOf(LOOP_ROTATION_HZ, pair));
    }
    this.updateRotations();
    const { outGains, outGainSteps, rotations } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outGainSteps[i] = (this.rotatedGains[i]! - outGains[i]!) / NETWORK_FRAMES;
    for (let i = 0; i < 2 * PAIRS; i += 1)
      rotations[2 * PAIRS + i] = (this.rotations[i]! - rotations[i]!) / NETWORK_FRAMES;
  }

  /** Ends the ramps, after the step. */
  commit(): void {
    const { outGains, rotations } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outGains[i] = this.rotatedGains[i]!;
    for (let i = 0; i < 2 * PAIRS; i += 1) rotations[i] = this.rotations[i]!;
  }

  /** Computes output gains, cosines and sines of the present phases. */
  private updateRotations(): void {
    const { unrotatedGains, rotatedGains, rotations } = this;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      rotations[pair] = sinTurns(this.loopPhases[pair]! + 0.25);
      rotations[PAIRS + pair] = sinTurns(this.loopPhases[pair]!);
      const cosine = sinTurns(this.outputPhases[pair]! + 0.25);
      const sine = sinTurns(this.outputPhases[pair]!);
      for (let at = 2 * pair; at < GAINS; at += NETWORK_LINES) {
        rotatedGains[at] = cosine * unrotatedGains[at]! - sine * unrotatedGains[at + 1]!;
        rotatedGains[at + 1] = sine * unrotatedGains[at]! + cosine * unrotatedGains[at + 1]!;
      }
    }
  }
}

/** Rates of the pairs, evenly spaced by ratio; every second one is negative. */
const SHARES = Float64Array.from({ length: PAIRS }, (_, pair) => (pair & 1 ? -1 : 1) * Math.pow(3, pair / (PAIRS - 1)));
const rateOf = (slowest: number, pair: number): number => slowest * SHARES[pair]!;
const wrapped = (turns: number): number => turns - Math.floor(turns);
