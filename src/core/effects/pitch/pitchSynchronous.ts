import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { SincRings } from '../../dsp/sincRings';
import { PeriodDetector } from './periodDetector';

const RING = 16_384;
/** Overlapping grains at most: two, four times as many two octaves up, twice that with formants an octave lower. */
const MAX_GRAINS = 20;
const WINDOW = 1024;
/** Steps between two detections of the pitch. */
const DETECTION_STEPS = 12;
/** Crossfade between pitched and unpitched sound. */
const SWITCH_SECONDS = 0.012;
/** Share by which a pitch mark moves towards the highest energy of its period with every grain. */
const MARK_TRACKING = 0.25;

/**
 * Moves the pitch of one voice and its formants apart from it: grains of two periods, one for every period, laid nearer
 * or farther apart.
 * Source: E. Moulines and F. Charpentier, "Pitch-synchronous waveform processing techniques for text-to-speech
 * synthesis using diphones" (1990).
 */
export class PitchSynchronousShift {
  private readonly rings = new SincRings(RING);
  private readonly detector: PeriodDetector;
  private readonly window = hann(WINDOW);
  private readonly centres = new Float64Array(MAX_GRAINS);
  private readonly halfLengths = new Float64Array(MAX_GRAINS);
  private readonly readPositions = new Float64Array(MAX_GRAINS);
  private readonly speeds = new Float64Array(MAX_GRAINS);
  private readonly levels = new Float64Array(MAX_GRAINS);
  private readonly switchStep: number;
  private written = 0;
  /** Last detected period in samples; 0 once its crossfade has ended. */
  private period = 0;
  private pitched = false;
  /** Centre of the last grain in the output, and the pitch mark in the input that it was cut at. */
  private lastCentre = 0;
  private lastMark = 0;
  private stepsUntilDetection = 0;
  private voicedShare = 0;

  /** @param latency in samples, more than two of the longest periods */
  constructor(
    sampleRate: number,
    private readonly latency: number,
  ) {
    this.detector = new PeriodDetector(sampleRate);
    this.switchStep = STEP_FRAMES / (SWITCH_SECONDS * sampleRate);
  }

  clear(): void {
    this.rings.clear();
    this.written = 0;
    this.period = 0;
    this.pitched = false;
    this.voicedShare = 0;
    this.stepsUntilDetection = 0;
    this.halfLengths.fill(0);
  }

  /**
   * Puts what has a pitch into `wet`, in the place of what is there.
   * @param ratio of the pitch
   * @param formantRatio ratio by which its formants are moved
   * @param apart false leaves `wet` as it is
   */
  process(input: StereoBlock, wet: StereoBlock, ratio: number, formantRatio: number, apart: boolean): void {
    this.rings.write(this.written, input.left, input.right, STEP_FRAMES);
    this.written += STEP_FRAMES;
    if (!apart && this.voicedShare === 0) return;
    this.detectPitch();
    this.scheduleGrains(ratio, formantRatio);
    const goal = apart && this.pitched ? 1 : 0;
    const before = this.voicedShare;
    const way = goal - before;
    this.voicedShare =
      before + (way > this.switchStep ? this.switchStep : way < -this.switchStep ? -this.switchStep : way);
    if (before === 0 && this.voicedShare === 0) {
      this.period = 0;
      return;
    }
    const slope = (this.voicedShare - before) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const rest = 1 - (before + slope * (i + 1));
      wet.left[i] = wet.left[i]! * rest;
      wet.right[i] = wet.right[i]! * rest;
    }
    for (let g = 0; g < MAX_GRAINS; g += 1) if (this.halfLengths[g]! > 0) this.addGrain(g, wet, before, slope);
  }

  private detectPitch(): void {
    this.stepsUntilDetection -= 1;
    if (this.stepsUntilDetection > 0) return;
    this.stepsUntilDetection = DETECTION_STEPS;
    // The analysed range is centred on what is heard.
    const until = this.written - this.latency + this.detector.longest + STEP_FRAMES;
    const found = this.detector.detect(this.rings, until);
    if (found > 0 && this.period === 0) {
      this.lastCentre = this.written;
      this.lastMark = this.loudestNear(this.written - this.latency, 0.5 * found, found);
    }
    this.pitched = found > 0;
    // The last period serves until the crossfade has ended.
    if (this.pitched) this.period = found;
  }

  /** Starts the grains whose window begins in this step. */
  private scheduleGrains(ratio: number, formantRatio: number): void {
    const { period } = this;
    if (period === 0) return;
    const halfLength = period / formantRatio;
    while (this.lastCentre + period / ratio - halfLength < this.written) {
      this.lastCentre += period / ratio;
      const wanted = this.lastCentre - this.latency;
      let lastMark = this.lastMark;
      while (lastMark < wanted - 0.5 * period) lastMark += period;
      while (lastMark > wanted + 0.5 * period) lastMark -= period;
      this.lastMark = lastMark + MARK_TRACKING * (this.loudestNear(lastMark, 0.1 * period, period) - lastMark);
      this.startGrain(halfLength, formantRatio, ratio);
    }
  }

  private startGrain(halfLength: number, formantRatio: number, ratio: number): void {
    for (let g = 0; g < MAX_GRAINS; g += 1) {
      if (this.halfLengths[g]! > 0) continue;
      this.centres[g] = this.lastCentre;
      this.halfLengths[g] = halfLength;
      this.readPositions[g] = this.lastMark;
      this.speeds[g] = formantRatio;
      this.levels[g] = formantRatio / ratio;
      return;
    }
  }

  /** Index of the highest energy, over a fifth of a period, within a reach of an index. */
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

  private addGrain(g: number, wet: StereoBlock, share: number, slope: number): void {
    const { rings, window } = this;
    const start = this.written - STEP_FRAMES;
    const centre = this.centres[g]! - start;
    const halfLength = this.halfLengths[g]!;
    const from = Math.max(0, Math.ceil(centre - halfLength));
    const to = Math.min(STEP_FRAMES, Math.ceil(centre + halfLength));
    if (centre + halfLength <= STEP_FRAMES) this.halfLengths[g] = 0;
    if (to <= from) return;
    const speed = this.speeds[g]!;
    rings.read(this.readPositions[g]! + (from - centre) * speed, speed, 0, from, to);
    const level = this.levels[g]!;
    const pace = (0.5 * WINDOW) / halfLength;
    for (let i = from; i < to; i += 1) {
      const at = (i - centre + halfLength) * pace;
      const k = at | 0;
      const shape = k < WINDOW - 1 ? window[k]! + (window[k + 1]! - window[k]!) * (at - k) : 0;
      const gain = level * shape * (share + slope * (i + 1));
      wet.left[i] = wet.left[i]! + gain * rings.outLeft[i]!;
      wet.right[i] = wet.right[i]! + gain * rings.outRight[i]!;
    }
  }
}
