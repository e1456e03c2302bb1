import { hann } from '../../dsp/hann';
import { SincRings } from '../../dsp/sincRings';
import { STEP_FRAMES, type StereoRun } from '../define';
import { PeriodFinder } from './period';

const RING = 16_384;
/** So many grains lie over one another at most: two, times two octaves up, with a throat an octave larger. */
const MOST_GRAINS = 20;
const WINDOW = 1024;
/** A pitch is looked for every so many steps. */
const LOOK_STEPS = 12;
/** How long the way between grains of a period and grains of a fixed length takes. */
const SWITCH_SECONDS = 0.012;
/** A grain's middle follows the loudest place of its period by this share. */
const FOLLOWED = 0.25;

/**
 * Moves the pitch of one voice and leaves its throat: grains of two periods, one for every period, laid nearer or farther apart.
 * Source: E. Moulines and F. Charpentier, "Pitch-synchronous waveform processing techniques for text-to-speech synthesis using diphones"
 * (1990).
 */
export class PitchSynchronousShift {
  private readonly rings = new SincRings(RING);
  private readonly finder: PeriodFinder;
  private readonly window = hann(WINDOW);
  private readonly middles = new Float64Array(MOST_GRAINS);
  private readonly halves = new Float64Array(MOST_GRAINS);
  private readonly places = new Float64Array(MOST_GRAINS);
  private readonly speeds = new Float64Array(MOST_GRAINS);
  private readonly levels = new Float64Array(MOST_GRAINS);
  private readonly switchStep: number;
  private came = 0;
  /** The last that was found; 0 when there has been none since the last was let go. */
  private period = 0;
  private pitched = false;
  /** Middle of the last grain as it is laid, and where it was taken from. */
  private laid = 0;
  private taken = 0;
  private looked = 0;
  private voiced = 0;

  /** @param latency samples by which all is late: more than two of the longest periods */
  constructor(
    sampleRate: number,
    private readonly latency: number,
  ) {
    this.finder = new PeriodFinder(sampleRate);
    this.switchStep = STEP_FRAMES / (SWITCH_SECONDS * sampleRate);
  }

  clear(): void {
    this.rings.clear();
    this.came = 0;
    this.period = 0;
    this.pitched = false;
    this.voiced = 0;
    this.looked = 0;
    this.halves.fill(0);
  }

  /**
   * Puts what has a pitch into `wet`, in the place of what is there.
   * @param ratio of the pitch  @param throat ratio by which its formants are moved  @param apart false leaves `wet` as it is
   */
  process(input: StereoRun, wet: StereoRun, ratio: number, throat: number, apart: boolean): void {
    this.rings.write(this.came, input.left, input.right, STEP_FRAMES);
    this.came += STEP_FRAMES;
    if (!apart && this.voiced === 0) return;
    this.look();
    this.lay(ratio, throat);
    const goal = apart && this.pitched ? 1 : 0;
    const before = this.voiced;
    const way = goal - before;
    this.voiced = before + (way > this.switchStep ? this.switchStep : way < -this.switchStep ? -this.switchStep : way);
    if (before === 0 && this.voiced === 0) {
      this.period = 0;
      return;
    }
    const slope = (this.voiced - before) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const rest = 1 - (before + slope * (i + 1));
      wet.left[i] = wet.left[i]! * rest;
      wet.right[i] = wet.right[i]! * rest;
    }
    for (let g = 0; g < MOST_GRAINS; g += 1) if (this.halves[g]! > 0) this.sound(g, wet, before, slope);
  }

  private look(): void {
    this.looked -= 1;
    if (this.looked > 0) return;
    this.looked = LOOK_STEPS;
    // What is looked at lies round what is heard: half of it before, half behind.
    const until = this.came - this.latency + this.finder.longest + STEP_FRAMES;
    const found = this.finder.find(this.rings, until);
    if (found > 0 && this.period === 0) {
      this.laid = this.came;
      this.taken = this.loudestNear(this.came - this.latency, 0.5 * found, found);
    }
    this.pitched = found > 0;
    // While it dies away it goes on as it was.
    if (this.pitched) this.period = found;
  }

  /** Begins the grains that are heard in this step for the first time. */
  private lay(ratio: number, throat: number): void {
    const { period } = this;
    if (period === 0) return;
    const half = period / throat;
    while (this.laid + period / ratio - half < this.came) {
      this.laid += period / ratio;
      const wanted = this.laid - this.latency;
      let taken = this.taken;
      while (taken < wanted - 0.5 * period) taken += period;
      while (taken > wanted + 0.5 * period) taken -= period;
      this.taken = taken + FOLLOWED * (this.loudestNear(taken, 0.1 * period, period) - taken);
      this.begin(half, throat, ratio);
    }
  }

  private begin(half: number, throat: number, ratio: number): void {
    for (let g = 0; g < MOST_GRAINS; g += 1) {
      if (this.halves[g]! > 0) continue;
      this.middles[g] = this.laid;
      this.halves[g] = half;
      this.places[g] = this.taken;
      this.speeds[g] = throat;
      this.levels[g] = throat / ratio;
      return;
    }
  }

  /** The loudest place within a reach, by the power of a fifth of a period. */
  private loudestNear(place: number, reach: number, period: number): number {
    const { rings } = this;
    const wide = Math.max(4, Math.round(0.1 * period));
    const from = Math.round(place - reach);
    const to = Math.round(place + reach);
    let power = 0;
    for (let i = from - wide; i < from + wide; i += 1) power += rings.monoAt(i) * rings.monoAt(i);
    let most = power;
    let best = from;
    for (let at = from + 1; at <= to; at += 1) {
      const enters = rings.monoAt(at + wide - 1);
      const leaves = rings.monoAt(at - wide - 1);
      power += enters * enters - leaves * leaves;
      if (power <= most) continue;
      most = power;
      best = at;
    }
    return best;
  }

  private sound(g: number, wet: StereoRun, share: number, slope: number): void {
    const { rings, window } = this;
    const start = this.came - STEP_FRAMES;
    const middle = this.middles[g]! - start;
    const half = this.halves[g]!;
    const from = Math.max(0, Math.ceil(middle - half));
    const to = Math.min(STEP_FRAMES, Math.ceil(middle + half));
    if (middle + half <= STEP_FRAMES) this.halves[g] = 0;
    if (to <= from) return;
    const speed = this.speeds[g]!;
    rings.read(this.places[g]! + (from - middle) * speed, speed, 0, from, to);
    const level = this.levels[g]!;
    const pace = (0.5 * WINDOW) / half;
    for (let i = from; i < to; i += 1) {
      const at = (i - middle + half) * pace;
      const k = at | 0;
      const shape = k < WINDOW - 1 ? window[k]! + (window[k + 1]! - window[k]!) * (at - k) : 0;
      const gain = level * shape * (share + slope * (i + 1));
      wet.left[i] = wet.left[i]! + gain * rings.outLeft[i]!;
      wet.right[i] = wet.right[i]! + gain * rings.outRight[i]!;
    }
  }
}
