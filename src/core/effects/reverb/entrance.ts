import { clearBlock, copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { AllpassDiffuser4, FOUR } from '../../dsp/allpassDiffuser4';
import { AllpassCascade } from '../../dsp/allpassCascade';
import { DelayLine } from '../../dsp/delayLine';
import { FilterCascade } from '../../dsp/filterCascade';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import type { KernelRoom } from '../../dsp/kernels/load';
import { tuning } from '../../dsp/stateVariable';
import { SPACE_COUNT, spaceAt } from './spaces';

const LONGEST_PRE_DELAY_SECONDS = 0.5;
const LONGEST_SWELL_SECONDS = 4;
const SWELL_TAPS = 32;
const BUTTERWORTH_Q = 0.7071;
/** Maximum gain of a diffusion section: higher ones would ring. */
const MAX_SMEAR = 0.82;
/** A section must decay within this share of the reverb's decay: a larger share of a long one, which masks it. */
const SMEAR_SHARE = 0.15;
const SMEAR_SHARE_A_SECOND = 0.08;
const MAX_SMEAR_SHARE = 0.4;
/** The right channel's sections are a little longer, to decorrelate the channels. */
const RIGHT_STRETCH = 1.083;
const COIL_GAIN = 0.62;
const COIL_TOP_HZ = 4400;

/** Fastest a delay moves, in samples per sample. */
const GLIDE = 0.5;

const stretchOf = (side: 0 | 1): number => (side === 0 ? 1 : RIGHT_STRETCH);
const smearSizes = (space: number, side: 0 | 1, sampleRate: number): number[] =>
  AllpassDiffuser4.sizesOf(
    spaceAt(space).smear.map((seconds) => seconds * stretchOf(side)),
    sampleRate,
  );
const sumOf = (sizes: readonly number[]): number => sizes.reduce((sum, size) => sum + size, 0);
/** Samples that the sections of any space need. */
const mostSmear = (side: 0 | 1, sampleRate: number): number =>
  Math.max(...Array.from({ length: SPACE_COUNT }, (_, space) => sumOf(smearSizes(space, side, sampleRate))));

/** One channel of the processing before the network: pre-delay, dispersion, diffusion, swell. */
export class EntranceSide {
  private readonly pre: DelayLine;
  private readonly swelling: DelayLine;
  private readonly smear: AllpassDiffuser4;
  private readonly smearSizes: readonly (readonly number[])[];
  private readonly longestSmear: readonly number[];
  private readonly coils: readonly (AllpassCascade | null)[];
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  /** Maximum gain of the longest section that lets it decay in time, from its length over that time. */
  private readonly falls = new MemoizedUnary((length) => Math.pow(10, -3 * length));
  private preNow = 0;
  private swellNow = 0;
  /** Gain of the diffusion; NaN until it is first set. */
  private smearNow = Number.NaN;

  /** @param room memory of a kernel for its diffusion; null leaves it to TypeScript */
  constructor(
    private readonly sampleRate: number,
    side: 0 | 1,
    room: KernelRoom | null,
  ) {
    this.pre = new DelayLine(LONGEST_PRE_DELAY_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES);
    this.swelling = new DelayLine(LONGEST_SWELL_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES);
    const spaces = Array.from({ length: SPACE_COUNT }, (_, i) => spaceAt(i));
    this.smear = new AllpassDiffuser4(mostSmear(side, sampleRate), room);
    this.smearSizes = spaces.map((_, space) => smearSizes(space, side, sampleRate));
    this.longestSmear = spaces.map(({ smear }) => smear[FOUR - 1]! * stretchOf(side));
    const coilLength = Math.max(1, Math.round(sampleRate / (2 * COIL_TOP_HZ)));
    this.coils = spaces.map(({ coil }) =>
      coil > 0 ? new AllpassCascade(new Array<number>(coil).fill(coilLength)) : null,
    );
  }

  clear(space: number): void {
    this.pre.clear();
    this.swelling.clear();
    this.enter(space);
  }

  /** Jumps to all lengths and gains, after silence. */
  locate(preDelayMs: number, swellMs: number): void {
    this.preNow = (preDelayMs * this.sampleRate) / 1000;
    this.swellNow = (swellMs * this.sampleRate) / 1000;
    this.smearNow = Number.NaN;
  }

  /** Sets up the sections of a space, empty. */
  enter(space: number): void {
    this.smear.take(this.smearSizes[space]!);
    this.coils[space]?.clear();
  }

  /** Pre-delay, in place: shared with the early reflections. */
  before(io: Float64Array, preDelayMs: number): void {
    this.preNow = this.delay(this.pre, io, this.preNow, (preDelayMs * this.sampleRate) / 1000);
  }

  /** The part that only the tail passes, in place. */
  after(io: Float64Array, space: number, diffusion: number, swellMs: number, decaySeconds: number): void {
    const share = Math.min(MAX_SMEAR_SHARE, SMEAR_SHARE + SMEAR_SHARE_A_SECOND * decaySeconds);
    const most = this.falls.at(this.longestSmear[space]! / (share * decaySeconds));
    const smear = diffusion * (most < MAX_SMEAR ? most : MAX_SMEAR);
    this.coils[space]?.process(io, STEP_FRAMES, COIL_GAIN, COIL_GAIN);
    this.smearBy(io, smear);
    this.swell(io, (swellMs * this.sampleRate) / 1000);
  }

  private smearBy(io: Float64Array, gain: number): void {
    const { smear } = this;
    if (Number.isNaN(this.smearNow)) this.smearNow = gain;
    for (let section = 0; section < FOUR; section += 1) smear.gains[section] = -this.smearNow;
    for (let i = 0; i < STEP_FRAMES; i += 1) smear.smeared[i] = io[i]!;
    smear.smear(STEP_FRAMES, (this.smearNow - gain) / STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) io[i] = smear.smeared[i]!;
    this.smearNow = gain;
  }

  private delay(line: DelayLine, io: Float64Array, now: number, goal: number): number {
    line.write(io, STEP_FRAMES);
    if (now === 0 && goal === 0) return 0;
    const next = glideTo(now, Math.round(goal));
    this.readAt(line, now, next);
    copyBlock(this.read, io);
    return next;
  }

  /** Reads as if each sample just written were at delay 0. */
  private readAt(line: DelayLine, now: number, next: number): void {
    const n = STEP_FRAMES;
    const { delays, read } = this;
    const step = (next - now) / n;
    if (step === 0 && Number.isInteger(now)) {
      line.readFixed(n + now, n, read);
      return;
    }
    for (let i = 0; i < n; i += 1) delays[i] = n + now + step * (i + 1);
    line.readLinear(delays, n, read);
  }

  /** Repeats over the time of the swell with rising level; the energy is the same as without. */
  private swell(io: Float64Array, goal: number): void {
    this.swelling.write(io, STEP_FRAMES);
    const now = this.swellNow;
    if (now === 0 && goal === 0) return;
    const next = now + (goal - now) * 0.02;
    const end = Math.abs(next - goal) < 1 ? goal : glideTo(now, next);
    clearBlock(io);
    let energy = 0;
    for (let tap = 1; tap <= SWELL_TAPS; tap += 1) energy += tap * tap;
    const unit = 1 / Math.sqrt(energy);
    for (let tap = 1; tap <= SWELL_TAPS; tap += 1) {
      // Unevenly spaced, by the golden section, so that the taps make no tone of their own.
      const share = (tap - 1 + ((tap * 0.618034) % 1)) / SWELL_TAPS;
      this.readAt(this.swelling, Math.round(now * share), Math.round(end * share));
      const level = tap * unit * (tap & 1 ? 1 : -1);
      for (let i = 0; i < STEP_FRAMES; i += 1) io[i] = io[i]! + this.read[i]! * level;
    }
    this.swellNow = end;
  }
}

function glideTo(now: number, goal: number): number {
  const most = GLIDE * STEP_FRAMES;
  return goal > now + most ? now + most : goal < now - most ? now - most : goal;
}

/** Both channels, and the cuts, which they share. */
export class Entrance {
  private readonly cuts: FilterCascade;
  private readonly left: EntranceSide;
  private readonly right: EntranceSide;
  private lowCutHz = 0;
  private highCutHz = 0;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    const [leftBytes, rightBytes] = [
      AllpassDiffuser4.bytesFor(mostSmear(0, sampleRate)),
      AllpassDiffuser4.bytesFor(mostSmear(1, sampleRate)),
    ];
    this.cuts = new FilterCascade(2, withKernel, leftBytes + rightBytes);
    const { room } = this.cuts;
    this.left = new EntranceSide(sampleRate, 0, room);
    this.right = new EntranceSide(sampleRate, 1, room && { memory: room.memory, at: room.at + leftBytes });
  }

  clear(space: number): void {
    this.left.clear(space);
    this.right.clear(space);
  }

  /** Jumps to all lengths and gains, after silence. */
  locate(preDelayMs: number, swellMs: number): void {
    this.cuts.clear();
    this.left.locate(preDelayMs, swellMs);
    this.right.locate(preDelayMs, swellMs);
  }

  /** Sets up the sections of another space, empty. */
  enter(space: number): void {
    this.left.enter(space);
    this.right.enter(space);
  }

  /** Pre-delay and cuts, in place: shared with the early reflections. */
  before(block: StereoBlock, preDelayMs: number, lowCutHz: number, highCutHz: number): void {
    this.left.before(block.left, preDelayMs);
    this.right.before(block.right, preDelayMs);
    if (lowCutHz !== this.lowCutHz || highCutHz !== this.highCutHz) this.aimCuts(lowCutHz, highCutHz);
    this.cuts.process(block);
  }

  private aimCuts(lowCutHz: number, highCutHz: number): void {
    const low = tuning(lowCutHz, BUTTERWORTH_Q, this.sampleRate);
    const cutLow = lowCutHz > 20 ? 1 : 0;
    this.cuts.aim(0, low.g, low.k, 1, -low.k * cutLow, -cutLow);
    const high = tuning(highCutHz, BUTTERWORTH_Q, this.sampleRate);
    const cutHigh = highCutHz < 20_000 ? 1 : 0;
    this.cuts.aim(1, high.g, high.k, 1 - cutHigh, 0, cutHigh);
    this.lowCutHz = lowCutHz;
    this.highCutHz = highCutHz;
  }

  after(block: StereoBlock, space: number, diffusion: number, swellMs: number, decaySeconds: number): void {
    this.left.after(block.left, space, diffusion, swellMs, decaySeconds);
    this.right.after(block.right, space, diffusion, swellMs, decaySeconds);
  }
}
