import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { DelayLine } from '../../dsp/delayLine';
import { imageSources, SPEED_OF_SOUND, type Point } from '../../dsp/imageSources';
import { TapBank } from '../../dsp/tapBank';
import { SPACE_COUNT, spaceAt, type Space } from './spaces';

const MAX_TAPS = 18;
/** Reflection gain of a wall. */
const WALL_GAIN = 0.82;
const LONGEST_SECONDS = 0.3;

interface EarlyTaps {
  readonly seconds: Float64Array;
  readonly left: Float64Array;
  readonly right: Float64Array;
}

/** Early reflections of the space's box after the direct sound: times at size 1 and levels on each side. */
export function earlyTaps({ box }: Space): EarlyTaps {
  if (!box) return { seconds: new Float64Array(0), left: new Float64Array(0), right: new Float64Array(0) };
  const at = (x: number, y: number, z: number): Point => [box[0] * x, box[1] * y, box[2] * z];
  const [direct, ...walls] = imageSources(box, at(0.42, 0.28, 0.44), at(0.53, 0.67, 0.4), 2);
  const chosen = walls.slice(0, MAX_TAPS);
  const level = (i: number, side: 1 | -1): number => {
    const { distance, toward, bounces } = chosen[i]!;
    const turns = bounces.reduce((sum, n) => sum + n, 0);
    const aside = toward[0] / Math.hypot(toward[0], toward[1]);
    return (direct!.distance / distance) * Math.pow(WALL_GAIN, turns) * Math.sqrt((1 + side * 0.8 * aside) / 2);
  };
  return {
    seconds: Float64Array.from(chosen, ({ distance }) => (distance - direct!.distance) / SPEED_OF_SOUND),
    left: Float64Array.from(chosen, (_, i) => level(i, -1)),
    right: Float64Array.from(chosen, (_, i) => level(i, 1)),
  };
}

/** Computed once: effects are created on the audio thread. */
const TAPS_OF: readonly EarlyTaps[] = Array.from({ length: SPACE_COUNT }, (_, i) => earlyTaps(spaceAt(i)));

/** Early reflections of each channel's input. Their delays glide when the size changes. */
export class Early {
  private readonly bank: TapBank;
  private readonly spaces: readonly EarlyTaps[];
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  private size = 1;

  constructor(
    private readonly sampleRate: number,
    withKernel: boolean,
  ) {
    this.bank = new TapBank(Math.ceil(LONGEST_SECONDS * sampleRate), withKernel);
    this.spaces = TAPS_OF;
  }

  clear(size: number): void {
    this.bank.clear();
    this.size = size;
  }

  /** Adds the reflections of `input` to `out`, their level ramped from `from` to `to`. */
  addTo(input: StereoBlock, out: StereoBlock, space: number, size: number, from: number, to: number): void {
    const taps = this.spaces[space]!;
    this.bank.write(input.left, input.right);
    if (from !== 0 || to !== 0) {
      if (size === this.size) this.addSteady(taps, out, from, to);
      else this.addMoving(taps, out, size, from, to);
    }
    this.size = size;
  }

  private addSteady({ seconds, left, right }: EarlyTaps, out: StereoBlock, from: number, to: number): void {
    const { levels } = this.bank;
    for (let tap = 0; tap < seconds.length; tap += 1) {
      const delay = Math.round(seconds[tap]! * this.sampleRate * this.size);
      levels[0] = left[tap]! * from;
      levels[1] = left[tap]! * to;
      levels[2] = right[tap]! * from;
      levels[3] = right[tap]! * to;
      this.bank.add(delay);
    }
    this.bank.addSums(out.left, out.right);
  }

  private addMoving(
    { seconds, left, right }: EarlyTaps,
    out: StereoBlock,
    size: number,
    from: number,
    to: number,
  ): void {
    const [leftLine, rightLine] = this.bank.lines;
    for (let tap = 0; tap < seconds.length; tap += 1) {
      this.glide(seconds[tap]! * this.sampleRate, size);
      this.add(leftLine, left[tap]! * from, left[tap]! * to, out.left);
      this.add(rightLine, right[tap]! * from, right[tap]! * to, out.right);
    }
  }

  /** Moves a reflection from its time at the previous size to that at the new one. */
  private glide(samples: number, size: number): void {
    const start = STEP_FRAMES + Math.round(samples * this.size);
    const step = (Math.round(samples * size) - Math.round(samples * this.size)) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) this.delays[i] = start + step * (i + 1);
  }

  private add(line: DelayLine, from: number, to: number, out: Float64Array): void {
    const { read } = this;
    line.readLinear(this.delays, STEP_FRAMES, read);
    const step = (to - from) / STEP_FRAMES;
    let level = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      level += step;
      out[i] = out[i]! + read[i]! * level;
    }
  }
}
