import { copyBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import { FilterCascade } from '../../dsp/filterCascade';
import { Noise } from '../../dsp/noise';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { MIN_DELAY, SweptLine } from '../sweptLine';
import { gritParams, MAX_AMOUNT_MS } from './params';

const P = paramIndices(gritParams);
const SINE = 1;
/** Mean delay, so that the delay can be modulated to both sides. */
const WAIT_MS = MAX_AMOUNT_MS + 1;
/** Peaks of the noise are clipped at this multiple of its standard deviation. */
const CREST = 2.5;

/**
 * A delay modulated so fast that it is heard as roughness: phase modulation of the sound by a sine or a band of noise.
 */
export class GritProcessor extends Insert implements EffectProcessor {
  readonly latency: number;
  private readonly lines: readonly [SweptLine, SweptLine];
  private readonly noises = [new Noise(0x1234567), new Noise(0x7654321), new Noise(0x5a5a5a5)] as const;
  private readonly band = new FilterCascade(2);
  private readonly shaking = makeStereoBlock();
  private readonly widthOf = new MemoizedUnary((octaves) => Math.pow(2, octaves));
  private readonly tan = new MemoizedUnary(Math.tan);
  private phase = 0;
  private amount = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.05, 0.01);
    this.latency = Math.round((WAIT_MS * sampleRate) / 1000);
    this.lines = [new SweptLine(2 * this.latency), new SweptLine(2 * this.latency)];
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.lines[0].clear();
    this.lines[1].clear();
    this.band.clear();
    const phase = seconds * values[P.frequency]!;
    this.phase = phase - Math.floor(phase);
    const place = Math.round(seconds * this.sampleRate);
    for (let i = 0; i < this.noises.length; i += 1) this.noises[i]!.restart(place);
    this.amount = values[P.amount]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    if (values[P.kind] === SINE) this.sine(values);
    else this.bandNoise(values);
    this.side(this.lines[0], input.left, wet.left, this.shaking.left, values);
    this.side(this.lines[1], input.right, wet.right, this.shaking.right, values);
    this.amount = values[P.amount]!;
  }

  private sine(values: Float64Array): void {
    const turn = values[P.frequency]! / this.sampleRate;
    const behind = 0.25 * values[P.apart]!;
    const { left, right } = this.shaking;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      this.phase += turn;
      left[i] = sinTurns(this.phase);
      right[i] = sinTurns(this.phase - behind);
    }
    this.phase -= Math.floor(this.phase);
  }

  /** Noise through two band-pass filters, normalised to the same power whatever the width. */
  private bandNoise(values: Float64Array): void {
    const { left, right } = this.shaking;
    const own = values[P.apart]!;
    const shared = Math.sqrt(1 - own * own);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const common = this.noises[0].next() * shared;
      left[i] = common + own * this.noises[1].next();
      right[i] = common + own * this.noises[2].next();
    }
    const hz = Math.min(values[P.frequency]!, 0.4 * this.sampleRate);
    const width = this.widthOf.at(values[P.bandwidth]!);
    const k = (width - 1) / Math.sqrt(width);
    const g = this.tan.at((Math.PI * hz) / this.sampleRate);
    this.band.aim(0, g, k, 0, k, 0);
    this.band.aim(1, g, k, 0, k, 0);
    this.band.process(this.shaking);
    // Two resonators in series have a noise bandwidth of a quarter of pi times the bandwidth of one; white noise of
    // height 1 has a power of a third.
    const passed = Math.min(0.5 * this.sampleRate, (Math.PI / 4) * hz * k);
    const level = 0.6 / Math.sqrt(passed / (0.5 * this.sampleRate) / 3);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = held(left[i]! * level);
      right[i] = held(right[i]! * level);
    }
  }

  private side(
    line: SweptLine,
    from: Float64Array,
    to: Float64Array,
    shaking: Float64Array,
    values: Float64Array,
  ): void {
    const step = (values[P.amount]! - this.amount) / STEP_FRAMES;
    const scale = this.sampleRate / 1000;
    let amount = this.amount;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      amount += step;
      const delay = this.latency + amount * scale * shaking[i]!;
      line.delays[i] = delay < MIN_DELAY ? MIN_DELAY : delay;
    }
    line.process(from, 0, 0);
    copyBlock(line.out, to);
  }
}

const held = (x: number): number => {
  const cut = x > CREST ? CREST : x < -CREST ? -CREST : x;
  return cut / CREST;
};
