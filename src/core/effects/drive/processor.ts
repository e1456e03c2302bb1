import { copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { FilterCascade } from '../../dsp/filterCascade';
import { DcBlock } from '../../dsp/onePole';
import { Oversampler } from '../../dsp/oversampler';
import { DRIVE_KINDS, WHOLLY_DRIVEN } from '../../dsp/saturate';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { AntialiasedShaper, hasCorners } from './antialiasedShaper';
import { CORNER_ROOM } from './cornerKernel';
import { CurveShaper } from './curves';
import { LevelMatcher } from './matcher';
import { CURVES, driveParams } from './params';

const P = paramIndices(driveParams);
const DRAWN = CURVES.indexOf('drawn');
/** Index of each curve in the kernel; -1 where it has none, or does not handle its corners. */
const IN_KERNEL = CURVES.map((curve, kind) =>
  hasCorners(kind) ? -1 : (DRIVE_KINDS as readonly string[]).indexOf(curve),
);
const TILT_DB = 9;
const TILT_HZ = 900;
const SHELF_K = Math.SQRT2;
/** Shelves and bells are designed from the square root of their gain. */
const rootOfGain = (db: number): number => Math.pow(10, db / 40);

const oversampler = (factor: 2 | 4 | 8): Oversampler => new Oversampler(factor, true, CORNER_ROOM);

/** Waveshaper at up to eight times the rate, with a band boosted or cut before and restored after it, and a tilt. */
export class DriveProcessor extends Insert implements EffectProcessor {
  private readonly oversamplers = [null, oversampler(2), oversampler(4), oversampler(8)] as const;
  private readonly shaper = new CurveShaper();
  private readonly antialiased = this.oversamplers.map(
    (made) => new AntialiasedShaper(this.shaper.drawn, made?.room ?? null),
  );
  private readonly dcBlocks: readonly [DcBlock, DcBlock];
  private readonly before = new FilterCascade(1);
  private readonly after = new FilterCascade(3);
  private readonly matcher: LevelMatcher;
  private readonly driveOf = new MemoizedUnary(dbToGain);
  /** Gain, frequency and width of the band; then the tilt. */
  private readonly lift = new MemoizedUnary(rootOfGain);
  private readonly tan = new MemoizedUnary(Math.tan);
  private readonly width = new MemoizedUnary((octaves) => Math.pow(2, octaves));
  private readonly tilt = new MemoizedUnary(rootOfGain);
  private readonly middle: number;
  private drive = 1;
  private bias = 0;
  private factor = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.5, 0.01);
    this.dcBlocks = [new DcBlock(5, sampleRate), new DcBlock(5, sampleRate)];
    this.matcher = new LevelMatcher(sampleRate);
    this.middle = Math.tan((Math.PI * TILT_HZ) / sampleRate);
  }

  get latency(): number {
    return this.oversamplers[this.factor]?.latency ?? 0;
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    for (let i = 0; i < this.oversamplers.length; i += 1) this.oversamplers[i]?.clear();
    for (let i = 0; i < this.antialiased.length; i += 1) this.antialiased[i]!.clear();
    this.dcBlocks[0].clear();
    this.dcBlocks[1].clear();
    this.before.clear();
    this.after.clear();
    this.matcher.clear();
    this.drive = this.driveOf.at(values[P.drive]!);
    this.bias = values[P.bias]!;
    this.factor = values[P.oversampling]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const factor = values[P.oversampling]!;
    if (factor !== this.factor) {
      this.factor = factor;
      this.oversamplers[factor]?.clear();
      this.antialiased[factor]?.clear();
    }
    this.updateFilters(values);
    copyBlock(input.left, wet.left);
    copyBlock(input.right, wet.right);
    this.before.process(wet);
    this.addBias(wet, values);
    this.bend(wet, values);
    this.dcBlocks[0].process(wet.left, STEP_FRAMES);
    this.dcBlocks[1].process(wet.right, STEP_FRAMES);
    this.after.process(wet);
    this.matcher.measure(input, wet);
    this.matcher.apply(wet, values[P.match]! >= 0.5);
  }

  /** The band before the curve is undone after it; then the tilt, as two shelves. */
  private updateFilters(values: Float64Array): void {
    const lift = this.lift.at(values[P.bandAmount]!);
    const most = 0.45 * this.sampleRate;
    const g = this.tan.at((Math.PI * Math.min(most, values[P.bandHz]!)) / this.sampleRate);
    const width = this.width.at(values[P.bandWidth]!);
    const q = Math.sqrt(width) / (width - 1);
    this.before.aim(0, g, 1 / (q * lift), 1, (1 / (q * lift)) * (lift * lift - 1), 0);
    this.after.aim(0, g, lift / q, 1, (lift / q) * (1 / (lift * lift) - 1), 0);
    const tilt = values[P.tone]! * TILT_DB;
    const { middle } = this;
    const low = 1 / this.tilt.at(tilt);
    const high = this.tilt.at(tilt);
    this.after.aim(1, middle / Math.sqrt(low), SHELF_K, 1, SHELF_K * (low - 1), low * low - 1);
    this.after.aim(2, middle * Math.sqrt(high), SHELF_K, high * high, SHELF_K * (1 - high) * high, 1 - high * high);
  }

  private addBias(wet: StereoBlock, values: Float64Array): void {
    const step = (values[P.bias]! - this.bias) / STEP_FRAMES;
    if (step === 0 && this.bias === 0) return;
    const drive = this.driveOf.at(values[P.drive]!);
    let bias = this.bias;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      bias += step;
      // The bias is added before the curve, whatever the drive.
      wet.left[i] = wet.left[i]! + bias / drive;
      wet.right[i] = wet.right[i]! + bias / drive;
    }
    this.bias = values[P.bias]!;
  }

  private bend(wet: StereoBlock, values: Float64Array): void {
    const drive = this.driveOf.at(values[P.drive]!);
    const kind = values[P.curve]!;
    const { shaper } = this;
    shaper.kind = kind;
    if (kind === DRAWN) shaper.drawn.take(values, P.height1);
    const made = this.oversamplers[this.factor];
    const inKernel = IN_KERNEL[kind]!;
    if (!made) {
      const step = (drive - this.drive) / STEP_FRAMES;
      shaper.shape(wet.left, 0, STEP_FRAMES, this.drive, step);
      shaper.shape(wet.right, 0, STEP_FRAMES, this.drive, step);
    } else if (inKernel >= 0 && drive > WHOLLY_DRIVEN && this.drive > WHOLLY_DRIVEN) {
      made.process(wet, inKernel, this.drive, drive);
      this.raise(wet, drive);
    } else if (hasCorners(kind)) {
      const antialiased = this.antialiased[this.factor]!;
      antialiased.aim(kind);
      made.process(wet, -1, this.drive, drive, antialiased);
    } else {
      made.process(wet, -1, this.drive, drive, shaper);
    }
    this.drive = drive;
  }

  /** The kernel divides by the drive after the curve; this effect's curves are at full scale. */
  private raise(wet: StereoBlock, drive: number): void {
    const step = (drive - this.drive) / STEP_FRAMES;
    let level = this.drive;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      level += step;
      wet.left[i] = wet.left[i]! * level;
      wet.right[i] = wet.right[i]! * level;
    }
  }
}
