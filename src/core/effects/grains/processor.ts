import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { Noise } from '../../dsp/noise';
import { DcBlock } from '../../dsp/onePole';
import { PeakGuard } from '../../dsp/peakGuard';
import { SincRings } from '../../dsp/sincRings';
import { CloudFeedback } from './feedback';
import { type EffectProcessor } from '../define';
import { paramIndices } from '../paramIndices';
import { grainsParams } from './params';

const P = paramIndices(grainsParams);
const MAX_GRAINS = 64;
const WINDOW = 1024;
/** With a last value of 0, for interpolation. */
const SHAPE = Float64Array.of(...hann(WINDOW), 0, 0);
/** Minimum distance of a grain from the write position, in samples. */
const ROOM = 16;
/** Windows over a low tone leave an offset, which would add up in the loop. */
const HIGH_PASS_HZ = 10;
const CEILING = 1.5;
const GUARD_RELEASE_SECONDS = 0.2;
const SILENCE = 1e-6;
/** Maximum change of the input's gain in a step. */
const TAKEN_PER_STEP = 0.1;

/**
 * Granulation of the recent input: overlapping grains, each with its own position, pitch, pan and direction.
 * Source: Curtis Roads, "Microsound" (2001), chapter "Granulation of Sampled Sounds".
 */
export class GrainsProcessor implements EffectProcessor {
  private readonly rings: SincRings;
  private readonly noise = new Noise();
  private readonly guard: PeakGuard;
  private readonly returns: CloudFeedback;
  private readonly blocks: readonly [DcBlock, DcBlock];
  private readonly back = makeStereoBlock();
  private readonly into = makeStereoBlock();
  /**
   * State of each grain: its read position and speed, its position within the window and its increment, and its gains;
   * inactive while its age is 1 or more.
   */
  private readonly readPositions = new Float64Array(MAX_GRAINS);
  private readonly speed = new Float64Array(MAX_GRAINS);
  private readonly age = new Float64Array(MAX_GRAINS).fill(1);
  private readonly ageing = new Float64Array(MAX_GRAINS);
  private readonly gainLeft = new Float64Array(MAX_GRAINS);
  private readonly gainRight = new Float64Array(MAX_GRAINS);
  /** First sample of the step at which a new grain begins. */
  private readonly begins = new Int32Array(MAX_GRAINS);
  private written = 0;
  private until = 0;
  private taking = 1;
  /** Samples into the step at which freeze changes. */
  private frozenAt = 0;
  private quietFrames = Infinity;

  constructor(private readonly sampleRate: number) {
    let size = 1024;
    while (size < 17 * sampleRate) size *= 2;
    this.rings = new SincRings(size);
    this.guard = new PeakGuard(CEILING, GUARD_RELEASE_SECONDS, sampleRate);
    this.returns = new CloudFeedback(size);
    this.blocks = [new DcBlock(HIGH_PASS_HZ, sampleRate), new DcBlock(HIGH_PASS_HZ, sampleRate)];
  }

  /** Grains reach at most twice four seconds and a grain's own length back. */
  get silent(): boolean {
    return this.quietFrames > 10 * this.sampleRate;
  }

  setSwitchOffset(frames: number): void {
    this.frozenAt = frames;
  }

  takeGuardGain(): number {
    return this.guard.takeLowest();
  }

  reset(seconds: number, values: Float64Array): void {
    this.rings.clear();
    this.written = 0;
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.noise.restart(Math.round(seconds * this.sampleRate));
    clearBlock(this.back.left);
    clearBlock(this.back.right);
    this.returns.clear();
    this.blocks[0].clear();
    this.blocks[1].clear();
    this.age.fill(1);
    this.until = 0;
    this.taking = values[P.freeze]! >= 0.5 ? 0 : 1;
    this.guard.clear();
    this.quietFrames = Infinity;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.take(input, values);
    this.startDueGrains(values);
    clearBlock(wet.left);
    clearBlock(wet.right);
    for (let g = 0; g < MAX_GRAINS; g += 1) if (this.age[g]! < 1) this.sound(g, wet);
    this.blocks[0].process(wet.left, STEP_FRAMES);
    this.blocks[1].process(wet.right, STEP_FRAMES);
    let peak = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = Math.abs(wet.left[i]!);
      const r = Math.abs(wet.right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
      this.back.left[i] = wet.left[i]!;
      this.back.right[i] = wet.right[i]!;
    }
    const reach = ((values[P.time]! + values[P.scatter]! + values[P.size]!) * this.sampleRate) / 1000;
    this.returns.process(this.back, values[P.feedback]!, reach);
    if (peak > SILENCE) this.quietFrames = 0;
  }

  /** Writes the input and the feedback; while frozen nothing is written. */
  private take(input: StereoBlock, values: Float64Array): void {
    const goal = values[P.freeze]! >= 0.5 ? 0 : 1;
    const before = this.taking;
    const { frozenAt } = this;
    const most = TAKEN_PER_STEP * (1 - frozenAt / STEP_FRAMES);
    this.taking = goal > before ? Math.min(goal, before + most) : Math.max(goal, before - most);
    this.quietFrames += STEP_FRAMES;
    if (before === 0 && this.taking === 0) return;
    const { into, back } = this;
    const step = frozenAt < STEP_FRAMES ? (this.taking - before) / (STEP_FRAMES - frozenAt) : 0;
    let share = before;
    let loud = false;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      if (i >= frozenAt) share += step;
      into.left[i] = share * (input.left[i]! + back.left[i]!);
      into.right[i] = share * (input.right[i]! + back.right[i]!);
      if (Math.abs(into.left[i]!) > SILENCE || Math.abs(into.right[i]!) > SILENCE) loud = true;
    }
    if (loud) this.quietFrames = 0;
    this.guard.process(into.left, into.right, STEP_FRAMES);
    this.returns.addWritten(into);
    this.rings.write(this.written, into.left, into.right, STEP_FRAMES);
    this.written += STEP_FRAMES;
  }

  /** Begins the grains that are due in this step. */
  private startDueGrains(values: Float64Array): void {
    const gap = this.sampleRate / values[P.density]!;
    while (this.until < STEP_FRAMES) {
      this.begin(Math.max(0, Math.floor(this.until)), values);
      const even = values[P.regular]!;
      const rain = -Math.log(0.5 * (this.noise.next() + 1) + 1e-6);
      this.until += gap * (even + (1 - even) * (rain < 4 ? rain : 4));
    }
    this.until -= STEP_FRAMES;
  }

  private begin(at: number, values: Float64Array): void {
    let g = 0;
    while (g < MAX_GRAINS && this.age[g]! < 1) g += 1;
    if (g === MAX_GRAINS) return;
    const { noise, sampleRate } = this;
    const length = Math.max(64, (values[P.size]! * sampleRate) / 1000);
    let octave = 0;
    if (0.5 * (noise.next() + 1) < values[P.octaves]!) octave = noise.next() > 0 ? 1 : -1;
    const speed = Math.pow(2, values[P.semitones]! / 12 + octave + (values[P.detune]! * noise.next()) / 1200);
    const backwards = 0.5 * (noise.next() + 1) < values[P.backwards]!;
    const reach = length * speed;
    const scattered = ((values[P.time]! + values[P.scatter]! * noise.next()) * sampleRate) / 1000;
    // A fast grain begins farther back, so as not to overtake the write position; a frozen line is not written.
    const least = ROOM + STEP_FRAMES + (this.taking === 0 ? reach : speed > 1 ? reach - length : 0);
    const delay = scattered < least ? least : scattered;
    const start = this.written - STEP_FRAMES + at - delay;
    this.speed[g] = backwards ? -speed : speed;
    // Samples ahead are not written yet: the ring has the oldest there.
    this.readPositions[g] = backwards ? start + (reach < delay - ROOM ? reach : delay - ROOM) : start;
    this.begins[g] = at;
    this.age[g] = 0;
    this.ageing[g] = 1 / length;
    const pan = values[P.spread]! * noise.next();
    // Number of grains that overlap; their powers add up.
    const together = Math.max(1, (0.375 * values[P.density]! * values[P.size]!) / 1000);
    const level = 1 / Math.sqrt(together);
    this.gainLeft[g] = level * Math.sqrt(1 - pan);
    this.gainRight[g] = level * Math.sqrt(1 + pan);
  }

  private sound(g: number, wet: StereoBlock): void {
    const { rings } = this;
    const { outLeft, outRight } = rings;
    const shape = SHAPE;
    const speed = this.speed[g]!;
    const ageing = this.ageing[g]!;
    const gl = this.gainLeft[g]!;
    const gr = this.gainRight[g]!;
    let age = this.age[g]!;
    const from = this.begins[g]!;
    const lasts = Math.ceil((1 - age) / ageing);
    const to = from + lasts < STEP_FRAMES ? from + lasts : STEP_FRAMES;
    rings.read(this.readPositions[g]!, speed, 0, from, to);
    for (let i = from; i < to; i += 1) {
      const at = age * WINDOW;
      const k = at | 0;
      const window = shape[k]! + (shape[k + 1]! - shape[k]!) * (at - k);
      wet.left[i] = wet.left[i]! + gl * window * outLeft[i]!;
      wet.right[i] = wet.right[i]! + gr * window * outRight[i]!;
      age += ageing;
    }
    this.begins[g] = 0;
    this.age[g] = age;
    this.readPositions[g] = this.readPositions[g]! + speed * (to - from);
  }
}
