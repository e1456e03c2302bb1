import { AllpassRow } from '../../dsp/allpassRow';
import { DelayLine } from '../../dsp/delayLine';
import { StateVariable, tuning } from '../../dsp/stateVariable';
import { STEP_FRAMES, type StereoRun } from '../define';
import { SPACE_COUNT, spaceAt } from './spaces';

const LONGEST_PRE_DELAY_SECONDS = 0.5;
const LONGEST_SWELL_SECONDS = 4;
const SWELL_TAPS = 32;
const BUTTERWORTH_Q = 0.7071;
/** Most gain of a smearing section: more would ring by itself. */
const MOST_SMEAR = 0.72;
/** A section's own ring must have died in this share of the decay. */
const SMEAR_SHARE = 0.4;
/** The right side's sections are a little longer, so that both smear differently. */
const RIGHT_STRETCH = 1.083;
const COIL_GAIN = 0.62;
const COIL_TOP_HZ = 4400;

/** Fastest a delay moves, in samples per sample. */
const GLIDE = 0.5;

/** One side of what sound passes before the network: pre-delay, cuts, coil, smear, swell. */
export class EntranceSide {
  private readonly pre: DelayLine;
  private readonly swelling: DelayLine;
  private readonly lowCut = new StateVariable();
  private readonly highCut = new StateVariable();
  private readonly smears: readonly AllpassRow[];
  private readonly longestSmear: readonly number[];
  private readonly coils: readonly (AllpassRow | null)[];
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  private preNow = 0;
  private swellNow = 0;
  private smearNow = 0;
  private lowIn = false;
  private highIn = false;

  constructor(private readonly sampleRate: number, side: 0 | 1) {
    this.pre = new DelayLine(LONGEST_PRE_DELAY_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES);
    this.swelling = new DelayLine(LONGEST_SWELL_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES);
    const stretch = side === 0 ? 1 : RIGHT_STRETCH;
    const spaces = Array.from({ length: SPACE_COUNT }, (_, i) => spaceAt(i));
    this.smears = spaces.map(({ smear }) => new AllpassRow(smear.map((seconds) => seconds * stretch * sampleRate)));
    this.longestSmear = spaces.map(({ smear }) => smear[smear.length - 1]! * stretch);
    const coilLength = Math.max(1, Math.round(sampleRate / (2 * COIL_TOP_HZ)));
    this.coils = spaces.map(({ coil }) => (coil > 0 ? new AllpassRow(new Array<number>(coil).fill(coilLength)) : null));
  }

  clear(preDelayMs: number, swellMs: number, diffusion: number): void {
    this.pre.clear();
    this.swelling.clear();
    this.clearSpace();
    this.lowCut.clear();
    this.highCut.clear();
    this.lowIn = this.highIn = false;
    this.preNow = (preDelayMs * this.sampleRate) / 1000;
    this.swellNow = (swellMs * this.sampleRate) / 1000;
    this.smearNow = diffusion * MOST_SMEAR;
  }

  /** Empties what belongs to the space alone. */
  clearSpace(): void {
    for (const smear of this.smears) smear.clear();
    for (const coil of this.coils) coil?.clear();
  }

  /** Pre-delay and cuts, in place: what the first reflections hear too. */
  before(io: Float64Array, preDelayMs: number, lowCutHz: number, highCutHz: number): void {
    this.preNow = this.delay(this.pre, io, this.preNow, (preDelayMs * this.sampleRate) / 1000);
    const cutLow = lowCutHz > 20;
    if (cutLow || this.lowIn) {
      const { g, k } = tuning(lowCutHz, BUTTERWORTH_Q, this.sampleRate);
      this.lowCut.process(io, STEP_FRAMES, g, k, 1, cutLow ? -k : 0, cutLow ? -1 : 0);
      this.lowIn = cutLow;
    }
    const cutHigh = highCutHz < 20_000;
    if (cutHigh || this.highIn) {
      const { g, k } = tuning(highCutHz, BUTTERWORTH_Q, this.sampleRate);
      this.highCut.process(io, STEP_FRAMES, g, k, cutHigh ? 0 : 1, 0, cutHigh ? 1 : 0);
      this.highIn = cutHigh;
    }
  }

  /** What only the tail passes, in place. */
  after(io: Float64Array, space: number, diffusion: number, swellMs: number, decaySeconds: number): void {
    const most = Math.pow(10, (-3 * this.longestSmear[space]!) / (SMEAR_SHARE * decaySeconds));
    const smear = diffusion * (most < MOST_SMEAR ? most : MOST_SMEAR);
    this.coils[space]?.process(io, STEP_FRAMES, COIL_GAIN, COIL_GAIN);
    this.smears[space]!.process(io, STEP_FRAMES, this.smearNow, smear);
    this.smearNow = smear;
    this.swell(io, (swellMs * this.sampleRate) / 1000);
  }

  private delay(line: DelayLine, io: Float64Array, now: number, goal: number): number {
    line.write(io, STEP_FRAMES);
    if (now === 0 && goal === 0) return 0;
    const next = glideTo(now, Math.round(goal));
    this.readAt(line, now, next);
    io.set(this.read);
    return next;
  }

  /** Reads as if each sample just written stood at delay 0. */
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

  /** The sound again and again over the time of the swell, louder each time; with the same energy as without. */
  private swell(io: Float64Array, goal: number): void {
    this.swelling.write(io, STEP_FRAMES);
    const now = this.swellNow;
    if (now === 0 && goal === 0) return;
    const next = now + (goal - now) * 0.02;
    const end = Math.abs(next - goal) < 1 ? goal : glideTo(now, next);
    io.fill(0);
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

/** Both sides. */
export class Entrance {
  private readonly left: EntranceSide;
  private readonly right: EntranceSide;

  constructor(sampleRate: number) {
    this.left = new EntranceSide(sampleRate, 0);
    this.right = new EntranceSide(sampleRate, 1);
  }

  clear(preDelayMs: number, swellMs: number, diffusion: number): void {
    this.left.clear(preDelayMs, swellMs, diffusion);
    this.right.clear(preDelayMs, swellMs, diffusion);
  }

  clearSpace(): void {
    this.left.clearSpace();
    this.right.clearSpace();
  }

  before(run: StereoRun, preDelayMs: number, lowCutHz: number, highCutHz: number): void {
    this.left.before(run.left, preDelayMs, lowCutHz, highCutHz);
    this.right.before(run.right, preDelayMs, lowCutHz, highCutHz);
  }

  after(run: StereoRun, space: number, diffusion: number, swellMs: number, decaySeconds: number): void {
    this.left.after(run.left, space, diffusion, swellMs, decaySeconds);
    this.right.after(run.right, space, diffusion, swellMs, decaySeconds);
  }
}
