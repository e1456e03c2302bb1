import { STEP_FRAMES } from '../../dsp/blocks';
import { NETWORK_LINES, PAIR_SPAN, PAIRS, type NetworkMemory } from '../../dsp/kernels/network/layout';

/**
 * Rotation rate of the slowest pair, a third of the fastest: of neighbours among the output gains, of those eight
 * apart, and of the lines inside the loop.
 */
const OUTPUT_ROTATION_HZ = 3.3;
const FAR_OUTPUT_ROTATION_HZ = 2.9;
const LOOP_ROTATION_HZ = 1;
/** Among the pairs eight apart each takes the rate of another: odd, so that all are taken. */
const FAR_ORDER = 3;
const GAINS = 2 * NETWORK_LINES;
const PER_FRAME = 1 / STEP_FRAMES;
/**
 * Mean line length at which the loop rotates at LOOP_ROTATION_HZ; shorter lines recirculate more often and rotate more
 * slowly.
 */
const REFERENCE_SECONDS = 0.05;
/** Phase offset from pair to pair, in turns; another for those eight apart, so that echoes are dense at once. */
const APART = 0.381966;
const FAR_APART = 0.618034;

/**
 * Rotates pairs of lines of a feedback delay network slowly, so that no mode keeps its energy, and pairs of its output
 * gains, twice, so that no mode keeps its level at the output. Rotations are orthogonal: decays stay as they are, and
 * no line changes its length.
 * Source: S. J. Schlecht and E. A. P. Habets, "Time-varying feedback matrices in feedback delay networks and their
 * application in artificial reverberation" (2015).
 */
export class LineRotation {
  private readonly outputs = new Phasors();
  private readonly farOutputs = new Phasors();
  private readonly loops = new Phasors();
  /** Output gains before and after rotation; then cosines and sines of the loop's rotation, one of each a pair. */
  private readonly unrotatedGains = new Float64Array(GAINS);
  private readonly rotatedGains = new Float64Array(GAINS);
  private readonly rotations = new Float64Array(2 * PAIRS);
  private speed = 0;
  /** The shares for which the steps of the phasors were computed; -1 for none. */
  private outputShare = -1;
  private loopShare = -1;
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
      this.outputs.set(pair, pair * APART + seconds * rateOf(OUTPUT_ROTATION_HZ, pair));
      this.farOutputs.set(pair, pair * FAR_APART + seconds * rateOf(FAR_OUTPUT_ROTATION_HZ, farRate(pair)));
      this.loops.set(pair, pair * APART + seconds * this.speed * rateOf(LOOP_ROTATION_HZ, pair));
    }
    this.settled = false;
  }

  /**
   * @param meanSeconds mean length of a space's lines
   * @param rotates false leaves the lines of the loop unmixed, for a space that keeps them apart
   */
  setSpace(meanSeconds: number, rotates: boolean): void {
    this.speed = rotates ? Math.sqrt(meanSeconds / REFERENCE_SECONDS) : 0;
    this.loopShare = -1;
    this.settled = false;
  }

  /**
   * Prepares linear ramps to the rotations at the end of the step.
   * @param outputShare of the full rate of the output gains, 0-1
   * @param loopShare of the full rate of the lines in the loop, 0-1
   */
  prepare(outputShare: number, loopShare: number): void {
    if (!this.settled) {
      this.updateRotations();
      this.commit();
      this.settled = true;
    }
    if (outputShare !== this.outputShare || loopShare !== this.loopShare) this.setShares(outputShare, loopShare);
    this.outputs.advance();
    this.farOutputs.advance();
    this.loops.advance();
    this.updateRotations();
    const { outGains, outGainSteps, rotations } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outGainSteps[i] = (this.rotatedGains[i]! - outGains[i]!) * PER_FRAME;
    for (let i = 0; i < 2 * PAIRS; i += 1) rotations[2 * PAIRS + i] = (this.rotations[i]! - rotations[i]!) * PER_FRAME;
  }

  private setShares(outputShare: number, loopShare: number): void {
    const outputSeconds = (outputShare * STEP_FRAMES) / this.sampleRate;
    const loopSeconds = (loopShare * STEP_FRAMES) / this.sampleRate;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      this.outputs.setStep(pair, outputSeconds * rateOf(OUTPUT_ROTATION_HZ, pair));
      this.farOutputs.setStep(pair, outputSeconds * rateOf(FAR_OUTPUT_ROTATION_HZ, farRate(pair)));
      this.loops.setStep(pair, loopSeconds * this.speed * rateOf(LOOP_ROTATION_HZ, pair));
    }
    this.outputShare = outputShare;
    this.loopShare = loopShare;
  }

  /** Ends the ramps, after the step. */
  commit(): void {
    const { outGains, rotations } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outGains[i] = this.rotatedGains[i]!;
    for (let i = 0; i < 2 * PAIRS; i += 1) rotations[i] = this.rotations[i]!;
  }

  /** Computes output gains, cosines and sines of the present phases. */
  private updateRotations(): void {
    const { unrotatedGains, rotatedGains, rotations, outputs, farOutputs, loops } = this;
    for (let i = 0; i < GAINS; i += 1) rotatedGains[i] = unrotatedGains[i]!;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      rotations[pair] = loops.cosines[pair]!;
      rotations[PAIRS + pair] = loops.sines[pair]!;
      this.rotateGains(2 * pair, 1, outputs.cosines[pair]!, outputs.sines[pair]!);
    }
    for (let pair = 0; pair < PAIRS; pair += 1)
      this.rotateGains(pair, PAIR_SPAN, farOutputs.cosines[pair]!, farOutputs.sines[pair]!);
  }

  /** Rotates the gains of two lines, `span` apart, on both sides. */
  private rotateGains(line: number, span: number, cosine: number, sine: number): void {
    const { rotatedGains } = this;
    for (let at = line; at < GAINS; at += NETWORK_LINES) {
      const a = rotatedGains[at]!;
      const b = rotatedGains[at + span]!;
      rotatedGains[at] = cosine * a - sine * b;
      rotatedGains[at + span] = sine * a + cosine * b;
    }
  }
}

/** Cosine and sine of one phase for each pair of lines, advanced by a complex multiplication instead of a sine. */
class Phasors {
  readonly cosines = new Float64Array(PAIRS).fill(1);
  readonly sines = new Float64Array(PAIRS);
  private readonly stepCosines = new Float64Array(PAIRS).fill(1);
  private readonly stepSines = new Float64Array(PAIRS);

  set(pair: number, turns: number): void {
    this.cosines[pair] = Math.cos(2 * Math.PI * turns);
    this.sines[pair] = Math.sin(2 * Math.PI * turns);
  }

  setStep(pair: number, turns: number): void {
    this.stepCosines[pair] = Math.cos(2 * Math.PI * turns);
    this.stepSines[pair] = Math.sin(2 * Math.PI * turns);
  }

  /** Advances all phases by their steps, and keeps the magnitudes at 1 against rounding. */
  advance(): void {
    const { cosines, sines, stepCosines, stepSines } = this;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      const x = cosines[pair]!;
      const y = sines[pair]!;
      const a = x * stepCosines[pair]! - y * stepSines[pair]!;
      const b = x * stepSines[pair]! + y * stepCosines[pair]!;
      // One Newton step for the reciprocal of the magnitude.
      const scale = 1.5 - 0.5 * (a * a + b * b);
      cosines[pair] = a * scale;
      sines[pair] = b * scale;
    }
  }
}

/** Rates of the pairs, evenly spaced by ratio; every second one is negative. */
const SHARES = Float64Array.from({ length: PAIRS }, (_, pair) => (pair & 1 ? -1 : 1) * Math.pow(3, pair / (PAIRS - 1)));
const farRate = (pair: number): number => (FAR_ORDER * pair + 2) & (PAIRS - 1);
const rateOf = (slowest: number, pair: number): number => slowest * SHARES[pair]!;
