import { clearBlock, makeStereoBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { Noise } from '../../dsp/noise';
import { PeakGuard } from '../../dsp/peakGuard';
import { SincRings } from '../../dsp/sincRings';
import type { History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { cloudParams } from './params';

const P = paramIndices(cloudParams);
const MAX_GRAINS = 48;
const WINDOW = 1024;
const SHAPE = Float64Array.of(...hann(WINDOW), 0, 0);
/** Mean square of the window. */
const WINDOW_POWER = 3 / 8;
const CEILING = 1;
/** Share of grains taken from the cloud itself at full feedback: the rest of the source stabilises its level. */
const MAX_RETURN = 0.9;
const GUARD_RELEASE_SECONDS = 0.2;
/** Longest age of the cloud's own sound from which grains are taken. */
const LOOP_SECONDS = 2;
/** Time over which levels are compared, and the maximum gain. */
const LEVEL_SECONDS = 0.15;
const MAX_GAIN = 4;
const MARGIN_FRAMES = 256;

/** A grain: its read position and source, its speed, and its position within the window. */
class Grain {
  source: SincRings | null = null;
  position = 0;
  speed = 1;
  age = 1;
  ageing = 0;
  left = 0;
  right = 0;
  /** First sample of the step at which it begins. */
  begins = 0;
}

/**
 * Grains of what passed before it began, and of the cloud itself. Its level is matched to that of its source. Source:
 * Curtis Roads, "Microsound" (2001), chapter "Granulation of Sampled Sounds".
 */
export class CloudVoice implements HoldVoice {
  private readonly noise = new Noise();
  private readonly guard: PeakGuard;
  private readonly loop: SincRings;
  private readonly loopFrames: number;
  private readonly grains: readonly Grain[] = Array.from({ length: MAX_GRAINS }, () => new Grain());
  private readonly work = makeStereoBlock();
  private readonly kept = makeStereoBlock();
  private position = 0;
  /** Oldest position that the history keeps for it. */
  private oldest = 0;
  private written = 0;
  private until = 0;
  private sourcePower = 0;
  private power = 0;
  private gain = 1;
  private readonly levelShare: number;

  constructor(private readonly sampleRate: number) {
    this.guard = new PeakGuard(CEILING, GUARD_RELEASE_SECONDS, sampleRate);
    this.loopFrames = 2 ** Math.ceil(Math.log2(LOOP_SECONDS * sampleRate));
    this.loop = new SincRings(this.loopFrames);
    this.levelShare = 1 - Math.exp(-STEP_FRAMES / (LEVEL_SECONDS * sampleRate));
  }

  begin(_at: number, position: number, history: History, values: Float64Array, place: number): void {
    this.noise.restart(place);
    this.guard.clear();
    this.loop.clear();
    for (let g = 0; g < MAX_GRAINS; g += 1) this.grains[g]!.age = 1;
    this.position = position;
    this.written = 0;
    this.until = 0;
    const reach = this.reachFrames(values);
    this.oldest = Math.floor(position - reach);
    history.protect(this.oldest - MARGIN_FRAMES);
    this.sourcePower = powerOf(history, position - reach, reach);
    this.power = this.sourcePower;
    this.gain = 1;
  }

  private frames(ms: number): number {
    return (ms / 1000) * this.sampleRate;
  }

  /** How far back grains read: a fast one goes through more than its own length. */
  private reachFrames(values: Float64Array): number {
    const speed = Math.pow(2, values[P.pitch]! / 12);
    return this.frames(values[P.scatter]!) + this.sizeFrames(values) * (1 + speed);
  }

  /** Grains are lengthened where there would be gaps between them. */
  private sizeFrames(values: Float64Array): number {
    const apart = this.sampleRate / values[P.density]!;
    const size = this.frames(values[P.size]!);
    const least = 2 * apart;
    const most = (MAX_GRAINS - 2) * apart;
    return size < least ? least : size > most ? most : size;
  }

  render(out: StereoBlock, { history, from, to, values }: HoldStep): void {
    const { work } = this;
    this.startDueGrains(from, to, values);
    clearBlock(work.left);
    clearBlock(work.right);
    for (let g = 0; g < MAX_GRAINS; g += 1) if (this.grains[g]!.age < 1) this.sound(this.grains[g]!, history, from, to);
    this.match(from, to);
    this.guard.process(work.left, work.right, STEP_FRAMES);
    this.writeLoop(from, to);
    for (let i = from; i < to; i += 1) {
      out.left[i] = work.left[i]!;
      out.right[i] = work.right[i]!;
    }
  }

  /** Matches the level to that of the source. Within the loop as well, where sums of like grains would grow. */
  private match(from: number, to: number): void {
    const { work } = this;
    let sum = 0;
    for (let i = from; i < to; i += 1) sum += work.left[i]! * work.left[i]! + work.right[i]! * work.right[i]!;
    this.power += (sum / (to - from) - this.power) * this.levelShare;
    const wanted = this.power > 1e-12 ? Math.sqrt(this.sourcePower / this.power) : 1;
    const step = ((wanted > MAX_GAIN ? MAX_GAIN : wanted) - this.gain) / (to - from);
    for (let i = from; i < to; i += 1) {
      this.gain += step;
      work.left[i] = work.left[i]! * this.gain;
      work.right[i] = work.right[i]! * this.gain;
    }
  }

  /** Writes the output, to be read again. */
  private writeLoop(from: number, to: number): void {
    const n = to - from;
    const { work, kept } = this;
    for (let i = 0; i < n; i += 1) {
      kept.left[i] = work.left[from + i]!;
      kept.right[i] = work.right[from + i]!;
    }
    this.loop.write(this.written, kept.left, kept.right, n);
    this.written += n;
  }

  private startDueGrains(from: number, to: number, values: Float64Array): void {
    this.until -= to - from;
    while (this.until < 0) {
      const begins = Math.max(from, Math.min(to - 1, Math.floor(to + this.until)));
      this.until += (this.sampleRate / values[P.density]!) * (1 + 0.5 * this.noise.next());
      this.startGrain(begins, values);
    }
  }

  private startGrain(begins: number, values: Float64Array): void {
    const grain = this.freeGrain();
    if (!grain) return;
    const size = this.sizeFrames(values);
    const speed = Math.pow(2, values[P.pitch]! / 12);
    const isBackwards = 0.5 + 0.5 * this.noise.next() < values[P.backwards]!;
    // The samples that a grain reads, and those that are written while it sounds.
    const span = size * (1 + speed) + MARGIN_FRAMES;
    const fits = this.written > span && this.loopFrames > 2 * span;
    const comesBack = 0.5 + 0.5 * this.noise.next() < MAX_RETURN * values[P.feedback]! && fits;
    const back = (0.5 + 0.5 * this.noise.next()) * this.frames(values[P.scatter]!);
    const end = comesBack ? this.written : this.position;
    const room = comesBack ? Math.min(back, this.loopFrames - 2 * span, this.written - span) : back;
    const wanted = end - room - size * speed - MARGIN_FRAMES / 4;
    const start = comesBack || wanted > this.oldest ? wanted : this.oldest;
    grain.source = comesBack ? this.loop : null;
    const position = isBackwards ? start + size * speed : start;
    // At an integer position and speed samples are copied instead of interpolated; half a sample is inaudible here.
    grain.position = Math.round(position);
    grain.speed = isBackwards ? -speed : speed;
    grain.age = 0;
    grain.ageing = 1 / size;
    grain.begins = begins;
    const overlap = (values[P.density]! * size) / this.sampleRate;
    const level = 1 / Math.sqrt(WINDOW_POWER * overlap);
    const side = values[P.spread]! * this.noise.next();
    grain.left = level * (side > 0 ? Math.cos((side * Math.PI) / 2) : 1);
    grain.right = level * (side < 0 ? Math.cos((side * Math.PI) / 2) : 1);
  }

  private freeGrain(): Grain | null {
    for (let g = 0; g < MAX_GRAINS; g += 1) if (this.grains[g]!.age >= 1) return this.grains[g]!;
    return null;
  }

  private sound(grain: Grain, history: History, from: number, to: number): void {
    const { work } = this;
    const start = grain.begins > from ? grain.begins : from;
    grain.begins = 0;
    if (start >= to) return;
    const { source } = grain;
    if (source) source.read(grain.position, grain.speed, 0, start, to);
    else history.read(grain.position, grain.speed, 0, start, to);
    const left = source ? source.outLeft : history.outLeft;
    const right = source ? source.outRight : history.outRight;
    const { left: toLeft, right: toRight } = work;
    const { ageing, left: leftLevel, right: rightLevel } = grain;
    let { age } = grain;
    for (let i = start; i < to && age < 1; i += 1) {
      const at = age * WINDOW;
      const whole = at | 0;
      const below = SHAPE[whole]!;
      const shape = below + (SHAPE[whole + 1]! - below) * (at - whole);
      toLeft[i] = toLeft[i]! + shape * leftLevel * left[i]!;
      toRight[i] = toRight[i]! + shape * rightLevel * right[i]!;
      age += ageing;
    }
    grain.age = age;
    grain.position += (to - start) * grain.speed;
  }
}

/** Number of positions at which the level of the history is measured. */
const LOOKED_AT = 32;

/** Mean power of both channels over a range of the history, sampled in parts. */
function powerOf(history: History, from: number, frames: number): number {
  let sum = 0;
  for (let k = 0; k < LOOKED_AT; k += 1) {
    history.read(Math.floor(from + (frames * k) / LOOKED_AT), 1, 0, 0, STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = history.outLeft[i]!;
      const r = history.outRight[i]!;
      sum += l * l + r * r;
    }
  }
  return sum / (LOOKED_AT * STEP_FRAMES);
}
