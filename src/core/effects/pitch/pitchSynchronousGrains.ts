import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { PeriodDetector, type MonoSource } from './periodDetector';

/** Overlapping grains at most: two, four times as many two octaves up, twice that with formants an octave lower. */
const MAX_GRAINS = 20;
const WINDOW = 1024;
/** Steps between two detections of the pitch. */
const DETECTION_STEPS = 12;
/** Crossfade between pitched and unpitched sound. */
const SWITCH_SECONDS = 0.012;
/** Share by which a pitch mark moves towards the highest energy of its period with every grain. */
const MARK_TRACKING = 0.25;

/** Memory of a stereo sound: read at any speed into `outLeft` and `outRight`, or as the sum of both sides at an integer position. */
export interface GrainSource extends MonoSource {
  readonly outLeft: Float64Array;
  readonly outRight: Float64Array;
  read(position: number, speed: number, growth: number, from: number, to: number): void;
}

/** Source position and ratios for the grains of a part of a step. */
export interface GrainOrder {
  /** Position in the source for the first output sample of the part, and its advance per output sample. */
  readonly position: number;
  readonly timeSpeed: number;
  /** Newest position in the source. */
  readonly newest: number;
  /** Ratios by which pitch and formants are shifted. */
  readonly ratio: number;
  readonly formantRatio: number;
}

/**
 * Shifts pitch, formants and time of one voice independently, by overlap-adding grains of two periods, one for each
 * period of the output.
 * Source: E. Moulines and F. Charpentier, "Pitch-synchronous waveform processing techniques for text-to-speech
 * synthesis using diphones" (1990).
 */
export class PitchSynchronousGrains {
  private readonly detector: PeriodDetector;
  private readonly window = hann(WINDOW);
  private readonly centres = new Float64Array(MAX_GRAINS);
  private readonly halfLengths = new Float64Array(MAX_GRAINS);
  private readonly readPositions = new Float64Array(MAX_GRAINS);
  private readonly speeds = new Float64Array(MAX_GRAINS);
  private readonly levels = new Float64Array(MAX_GRAINS);
  private readonly switchStep: number;
  /** Frames of output so far. */
  private made = 0;
  /** Last detected period in samples; 0 once its crossfade has ended. */
  private period = 0;
  private pitched = false;
  /** Centre of the last grain in the output, and the pitch mark in the input that it was cut at. */
  private lastCentre = 0;
  private lastMark = 0;
  private framesUntilDetection = 0;
  private voicedShare = 0;

  constructor(
    sampleRate: number,
    private readonly source: GrainSource,
  ) {
    this.detector = new PeriodDetector(sampleRate);
    this.switchStep = 1 / (SWITCH_SECONDS * sampleRate);
  }

  clear(): void {
    this.made = 0;
    this.period = 0;
    this.pitched = false;
    this.voicedShare = 0;
    this.framesUntilDetection = 0;
    this.halfLengths.fill(0);
  }

  /** Clears, and starts at full level where the sound has a pitch: with grains whose windows began before the first sample. */
  begin(order: GrainOrder): void {
    this.clear();
    this.detectPitch(order);
    if (!this.pitched) return;
    this.voicedShare = 1;
    this.lastCentre = -2 * (this.period / order.formantRatio);
  }

  /**
   * Replaces [from, to) of `out` by the shifted voice, where the sound has a pitch.
   * @param enabled false crossfades back to `out` as it is
   */
  add(out: StereoBlock, from: number, to: number, order: GrainOrder, enabled: boolean): void {
    const n = to - from;
    if (!enabled && this.voicedShare === 0) {
      this.period = 0;
      this.made += n;
      return;
    }
    this.framesUntilDetection -= n;
    if (this.framesUntilDetection <= 0) this.detectPitch(order);
    this.scheduleGrains(n, order);
    const goal = enabled && this.pitched ? 1 : 0;
    const before = this.voicedShare;
    const most = n * this.switchStep;
    const way = goal - before;
    this.voicedShare = before + (way > most ? most : way < -most ? -most : way);
    if (before === 0 && this.voicedShare === 0) {
      this.period = 0;
      this.made += n;
      return;
    }
    const slope = (this.voicedShare - before) / n;
    for (let i = 0; i < n; i += 1) {
      const rest = 1 - (before + slope * (i + 1));
      out.left[from + i] = out.left[from + i]! * rest;
      out.right[from + i] = out.right[from + i]! * rest;
    }
    for (let g = 0; g < MAX_GRAINS; g += 1) if (this.halfLengths[g]! > 0) this.addGrain(g, out, from, n, before, slope);
    this.made += n;
  }

  private detectPitch({ position, newest }: GrainOrder): void {
    this.framesUntilDetection = DETECTION_STEPS * STEP_FRAMES;
    // The analysed range is centred on what is heard.
    const until = Math.floor(position) + this.detector.longest + 2 * STEP_FRAMES;
    const found = this.detector.detect(this.source, until < newest ? until : Math.floor(newest));
    if (found > 0 && this.period === 0) {
      this.lastCentre = this.made + STEP_FRAMES;
      this.lastMark = this.loudestNear(position + STEP_FRAMES, 0.5 * found, found);
    }
    this.pitched = found > 0;
    // The last period serves until the crossfade has ended.
    if (this.pitched) this.period = found;
  }

  /** Starts the grains whose window begins in these frames. */
  private scheduleGrains(n: number, { position, timeSpeed, newest, ratio, formantRatio }: GrainOrder): void {
    const { period } = this;
    if (period === 0) return;
    const halfLength = period / formantRatio;
    const latest = newest - period * readAheadPeriods(formantRatio);
    while (this.lastCentre + period / ratio - halfLength < this.made + n) {
      this.lastCentre += period / ratio;
      const due = position + (this.lastCentre - this.made) * timeSpeed;
      const wanted = due < latest ? due : latest;
      const lastMark = this.lastMark + period * Math.round((wanted - this.lastMark) / period);
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
    const { source } = this;
    const wide = Math.max(4, Math.round(0.1 * period));
    const from = Math.round(place - reach);
    const to = Math.round(place + reach);
    let power = 0;
    for (let i = from - wide; i < from + wide; i += 1) power += source.monoAt(i) * source.monoAt(i);
    let most = power;
    let best = from;
    for (let at = from + 1; at <= to; at += 1) {
      const enters = source.monoAt(at + wide - 1);
      const leaves = source.monoAt(at - wide - 1);
      power += enters * enters - leaves * leaves;
      if (power <= most) continue;
      most = power;
      best = at;
    }
    return best;
  }

  private addGrain(g: number, out: StereoBlock, first: number, n: number, share: number, slope: number): void {
    const { source, window } = this;
    const centre = this.centres[g]! - this.made;
    const halfLength = this.halfLengths[g]!;
    const from = Math.max(0, Math.ceil(centre - halfLength));
    const to = Math.min(n, Math.ceil(centre + halfLength));
    if (centre + halfLength <= n) this.halfLengths[g] = 0;
    if (to <= from) return;
    const speed = this.speeds[g]!;
    source.read(this.readPositions[g]! + (from - centre) * speed, speed, 0, from, to);
    const level = this.levels[g]!;
    const pace = (0.5 * WINDOW) / halfLength;
    for (let i = from; i < to; i += 1) {
      const at = (i - centre + halfLength) * pace;
      const k = at | 0;
      const shape = k < WINDOW - 1 ? window[k]! + (window[k + 1]! - window[k]!) * (at - k) : 0;
      const gain = level * shape * (share + slope * (i + 1));
      out.left[first + i] = out.left[first + i]! + gain * source.outLeft[i]!;
      out.right[first + i] = out.right[first + i]! + gain * source.outRight[i]!;
    }
  }
}

/**
 * Periods by which the wanted position of a grain has to be older than the newest sample: its pitch mark is up to half
 * a period later, the search for it reads up to a fifth of a period beyond, and a grain that is read at more than twice
 * the speed catches up with the input.
 */
const readAheadPeriods = (formantRatio: number): number => 0.8 + (formantRatio > 2 ? 1 - 2 / formantRatio : 0);
