import { clearBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { CascadedMovingAverage } from '../../dsp/cascadedMovingAverage';
import { SPEED_OF_SOUND } from '../../dsp/imageSources';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { readLines } from '../../dsp/lineReader';
import { type EffectProcessor } from '../define';
import { commonParams } from '../common';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { leadSamples, WallEar, type SourceLines } from './ear';
import { SHADOW_HZ, spotAt, type Spot } from './geometry';
import { SphericalHeadEar, headFilterLatency, headFilters } from './sphericalHeadEar';
import { FARTHEST_METRES, NEAREST_METRES, PATH_POINTS, placerParams, placerRails } from './params';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const P = paramIndices(placerRails);
const FIRST_CORNER = Object.keys({ ...commonParams, ...placerParams }).indexOf('x1');
/** A room round the listener: side walls, front and back wall, floor, as twice their distance along each axis. */
const WALLS: readonly (readonly [number, number, number])[] = [
  [-8, 0, 0],
  [8, 0, 0],
  [0, 12, 0],
  [0, -10, 0],
  [0, 0, -2.4],
];
const WALL_GAIN = 0.7;
const LONGEST_METRES = 2 * FARTHEST_METRES + 30;
/**
 * Air takes the octave at 8 kHz down by about 0.1 dB a metre (ISO 9613-1, 20 degrees, 50 %); heard as a one-pole whose
 * cutoff falls with distance.
 */
const AIR_HZ_METRES = 160_000;
/** Two sources (both sides of the sound) heard by two ears. */
const SOURCES = 2;
const MOVE_SECONDS = 0.02;

/** A sound at a position around the listener: interaural time and level, head shadow, air, floor and walls. */
export class PlacerProcessor extends Insert implements EffectProcessor {
  /** Latency in samples of a source straight ahead, beside the travel time. */
  readonly latency: number;
  private readonly lines: readonly SourceLines[];
  private readonly lowPasses: readonly CascadedMovingAverage[];
  private readonly lows = new Float64Array(STEP_FRAMES);
  private readonly ears: readonly SphericalHeadEar[];
  private readonly wallEars: readonly WallEar[];
  private readonly runs = [new Float64Array(STEP_FRAMES), new Float64Array(STEP_FRAMES)] as const;
  private readonly spot: Spot = { x: 0, y: 1 };
  private readonly corners = new Float64Array(2 * PATH_POINTS);
  private readonly damped = new Float64Array(SOURCES);
  private readonly sines = [new MemoizedUnary(Math.sin), new MemoizedUnary(Math.sin)];
  private readonly cosines = [new MemoizedUnary(Math.cos), new MemoizedUnary(Math.cos)];
  private readonly laterals = [new MemoizedUnary(Math.asin), new MemoizedUnary(Math.asin)];
  private readonly log = new MemoizedUnary(Math.log);
  private readonly fall = new MemoizedUnary(Math.exp);
  private readonly air = new MemoizedUnary(Math.exp);
  private seenX = Number.NaN;
  private seenY = 0;
  private seenAzimuth = 0;
  private cyclePhase = 0;
  private spread = 0;
  private x = Number.NaN;
  private y = 0;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(sampleRate: number, withKernel = true) {
    super(sampleRate, LONGEST_METRES / SPEED_OF_SOUND, MOVE_SECONDS);
    const longest = (LONGEST_METRES / SPEED_OF_SOUND) * sampleRate + 6 * STEP_FRAMES;
    this.lowPasses = [
      new CascadedMovingAverage(SHADOW_HZ, sampleRate),
      new CascadedMovingAverage(SHADOW_HZ, sampleRate),
    ];
    const lowsLate = Math.round(this.lowPasses[0]!.delay);
    this.latency = leadSamples(sampleRate) + headFilterLatency(sampleRate);
    const lines = readLines(2 * SOURCES, longest, withKernel);
    this.lines = this.lowPasses.map(({ delay }, i) => ({
      whole: lines[2 * i]!,
      lows: lines[2 * i + 1]!,
      lateness: delay,
    }));
    const sides = Array.from({ length: SOURCES }, () => [-1, 1] as const).flat();
    const firs = headFilters(sides.length, sampleRate);
    this.ears = sides.map((side, i) => new SphericalHeadEar(side, sampleRate, firs[i]!));
    // Reflections have the same latency as the direct sound.
    const later = headFilterLatency(sampleRate) - lowsLate;
    this.wallEars = WALLS.flatMap(() => [new WallEar(-1, sampleRate, later), new WallEar(1, sampleRate, later)]);
  }

  reset(seconds: number, values: Float64Array): void {
    for (let source = 0; source < SOURCES; source += 1) {
      this.lines[source]!.whole.clear();
      this.lines[source]!.lows.clear();
      this.lowPasses[source]!.clear();
    }
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const turns = seconds * values[P.rate]!;
    this.cyclePhase = turns - Math.floor(turns);
    for (let i = 0; i < this.ears.length; i += 1) this.ears[i]!.clear();
    for (let i = 0; i < this.wallEars.length; i += 1) this.wallEars[i]!.clear();
    this.damped.fill(0);
    this.x = Number.NaN;
    this.spread = values[P.spread]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    this.move(values);
    const flat = Math.max(NEAREST_METRES, Math.sqrt(this.x * this.x + this.y * this.y));
    const distance = Math.sqrt(flat * flat + values[P.height]! * values[P.height]!);
    this.write(input, values, distance);
    clearBlock(wet.left);
    clearBlock(wet.right);
    const azimuth = this.azimuth();
    const raised = flat / distance;
    const head = values[P.head]!;
    const outer = values[P.outerEar]!;
    const apart = (values[P.spread]! * Math.PI) / 360;
    const gain = this.fall.at(-values[P.distanceLevel]! * this.log.at(distance));
    const seconds = values[P.doppler]! >= 0.5 ? distance / SPEED_OF_SOUND : 0;
    for (let source = 0; source < SOURCES; source += 1) {
      const angle = azimuth + (source === 0 ? -apart : apart);
      const lateral = this.laterals[source]!.at(this.sines[source]!.at(angle) * raised);
      const elevation = outer > 0 ? Math.atan2(values[P.height]!, flat * this.cosines[source]!.at(angle)) : 0;
      const { whole } = this.lines[source]!;
      this.ears[2 * source]!.addTo(wet.left, whole, lateral, elevation, seconds, gain, head, outer);
      this.ears[2 * source + 1]!.addTo(wet.right, whole, lateral, elevation, seconds, gain, head, outer);
    }
    this.reflect(wet, values, seconds - distance / SPEED_OF_SOUND);
  }

  private azimuth(): number {
    if (this.x !== this.seenX || this.y !== this.seenY) {
      this.seenX = this.x;
      this.seenY = this.y;
      this.seenAzimuth = Math.atan2(this.x, this.y);
    }
    return this.seenAzimuth;
  }

  private move(values: Float64Array): void {
    const turns = this.cyclePhase + (values[P.rate]! * STEP_FRAMES) / this.sampleRate;
    this.cyclePhase = turns - Math.floor(turns);
    for (let i = 0; i < this.corners.length; i += 1) this.corners[i] = values[FIRST_CORNER + i]!;
    spotAt(
      this.spot,
      values[P.path]!,
      this.cyclePhase,
      values[P.direction]!,
      values[P.distance]!,
      values[P.extent]!,
      this.corners,
    );
    const { x, y } = this.spot;
    // A change of path or a jump past 360 degrees takes the shorter way.
    const share = Number.isNaN(this.x) ? 1 : this.share;
    this.x = share === 1 ? x : this.x + (x - this.x) * share;
    this.y = share === 1 ? y : this.y + (y - this.y) * share;
  }

  /** Both sources of the sound, after the air: one point takes half of each side. */
  private write(input: StereoBlock, values: Float64Array, distance: number): void {
    const n = STEP_FRAMES;
    const hz = values[P.airDamping] === 0 ? Infinity : AIR_HZ_METRES / (values[P.airDamping]! * distance);
    const keep = hz > 0.45 * this.sampleRate ? 0 : this.air.at((-2 * Math.PI * hz) / this.sampleRate);
    const [left, right] = this.runs;
    const spreadStep = (values[P.spread]! - this.spread) / n;
    let spread = this.spread;
    let a = this.damped[0]!;
    let b = this.damped[1]!;
    for (let i = 0; i < n; i += 1) {
      spread += spreadStep;
      // Sides grow apart over the first 20 degrees of spread.
      const own = spread >= 20 ? 1 : 0.5 + spread / 40;
      const l = input.left[i]!;
      const r = input.right[i]!;
      const x = 0.5 * (own * l + (1 - own) * r);
      const y = 0.5 * (own * r + (1 - own) * l);
      a = x + (a - x) * keep + DENORMAL_GUARD - DENORMAL_GUARD;
      b = y + (b - y) * keep + DENORMAL_GUARD - DENORMAL_GUARD;
      left[i] = a;
      right[i] = b;
    }
    this.spread = values[P.spread]!;
    this.damped[0] = a;
    this.damped[1] = b;
    for (let source = 0; source < SOURCES; source += 1) {
      const run = this.runs[source as 0 | 1];
      this.lowPasses[source]!.process(run, this.lows, n);
      this.lines[source]!.whole.write(run, n);
      this.lines[source]!.lows.write(this.lows, n);
    }
  }

  /**
   * Floor and walls, from the mirror images of the position.
   * @param offset difference of the direct sound's delay from its travel time
   */
  private reflect(wet: StereoBlock, values: Float64Array, offset: number): void {
    const level = values[P.reflections]!;
    if (level === 0) return;
    for (let wall = 0; wall < WALLS.length; wall += 1) {
      const mirror = WALLS[wall]!;
      const x = mirror[0] === 0 ? this.x : mirror[0] - this.x;
      const y = mirror[1] === 0 ? this.y : mirror[1] - this.y;
      const z = mirror[2] === 0 ? values[P.height]! : mirror[2] - values[P.height]!;
      const way = Math.max(NEAREST_METRES, Math.sqrt(x * x + y * y + z * z));
      const gain = level * WALL_GAIN * Math.pow(way, -values[P.distanceLevel]!);
      const lateral = Math.asin(Math.max(-1, Math.min(1, x / way)));
      const seconds = Math.max(0, way / SPEED_OF_SOUND + offset);
      const line = this.lines[wall & 1]!;
      this.wallEars[2 * wall]!.addTo(wet.left, line, lateral, seconds, gain, values[P.head]!);
      this.wallEars[2 * wall + 1]!.addTo(wet.right, line, lateral, seconds, gain, values[P.head]!);
    }
  }
}
