import { DelayLine } from '../../dsp/delayLine';
import { imageSources, SPEED_OF_SOUND, type Point } from '../../dsp/imageSources';
import { STEP_FRAMES, type StereoRun } from '../define';
import { SPACE_COUNT, spaceAt, type Space } from './spaces';

const MOST_TAPS = 18;
/** What a wall gives back. */
const WALL_GAIN = 0.82;
const LONGEST_SECONDS = 0.3;

interface EarlyTaps {
  readonly seconds: Float64Array;
  readonly left: Float64Array;
  readonly right: Float64Array;
}

/** The first reflections of the space's box, after the direct sound, as times at size 1 and levels on each side. */
export function earlyTaps({ box }: Space): EarlyTaps {
  if (!box) return { seconds: new Float64Array(0), left: new Float64Array(0), right: new Float64Array(0) };
  const at = (x: number, y: number, z: number): Point => [box[0] * x, box[1] * y, box[2] * z];
  const [direct, ...walls] = imageSources(box, at(0.42, 0.28, 0.44), at(0.53, 0.67, 0.4), 2);
  const chosen = walls.slice(0, MOST_TAPS);
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

/** Worked out once: effects are made on the audio thread. */
const TAPS_OF: readonly EarlyTaps[] = Array.from({ length: SPACE_COUNT }, (_, i) => earlyTaps(spaceAt(i)));

/** Plays the first reflections of each side's own input. They glide when the walls move. */
export class Early {
  private readonly lines: readonly [DelayLine, DelayLine];
  private readonly spaces: readonly EarlyTaps[];
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  private size = 1;

  constructor(private readonly sampleRate: number) {
    const longest = Math.ceil(LONGEST_SECONDS * sampleRate);
    this.lines = [new DelayLine(longest, STEP_FRAMES), new DelayLine(longest, STEP_FRAMES)];
    this.spaces = TAPS_OF;
  }

  clear(size: number): void {
    for (const line of this.lines) line.clear();
    this.size = size;
  }

  /** Adds the reflections of `input` to `out`, their level moving from `from` to `to`. */
  addTo(input: StereoRun, out: StereoRun, space: number, size: number, from: number, to: number): void {
    const taps = this.spaces[space]!;
    const [left, right] = this.lines;
    left.write(input.left, STEP_FRAMES);
    right.write(input.right, STEP_FRAMES);
    if (from !== 0 || to !== 0) {
      for (let tap = 0; tap < taps.seconds.length; tap += 1) {
        const seconds = taps.seconds[tap]!;
        this.add(left, seconds, size, taps.left[tap]! * from, taps.left[tap]! * to, out.left);
        this.add(right, seconds, size, taps.right[tap]! * from, taps.right[tap]! * to, out.right);
      }
    }
    this.size = size;
  }

  private add(line: DelayLine, seconds: number, size: number, from: number, to: number, out: Float64Array): void {
    const n = STEP_FRAMES;
    const { delays, read } = this;
    const samples = seconds * this.sampleRate;
    if (size === this.size) line.readFixed(n + Math.round(samples * size), n, read);
    else {
      const step = (Math.round(samples * size) - Math.round(samples * this.size)) / n;
      const start = n + Math.round(samples * this.size);
      for (let i = 0; i < n; i += 1) delays[i] = start + step * (i + 1);
      line.readLinear(delays, n, read);
    }
    const step = (to - from) / n;
    let level = from;
    for (let i = 0; i < n; i += 1) {
      level += step;
      out[i] = out[i]! + read[i]! * level;
    }
  }
}
