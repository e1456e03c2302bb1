import type { FeedbackNetwork } from '../../dsp/feedbackNetwork';
import { NETWORK_LINES } from '../../dsp/kernels/network/layout';
import { highShelf, highShelfPower, lowShelf, lowShelfPower, shelfRoot, type Section } from '../../dsp/shelf';
import type { DecayContour } from './spaces';

/**
 * Frequencies at which decays are exact. The decay of an octave band is dominated by its slower part, so that the bands
 * at 125 Hz and 8 kHz are set a little towards the middle.
 */
const REFERENCE_HZ = 1000;
const LOW_EXACT_HZ = 140;
const HIGH_EXACT_HZ = 7000;
/** For a high crossover, the ratio to it of the frequency at which the high decay is exact. */
const ABOVE_HIGHS = 1.4;
const HIGHEST_SHARE = 0.42;
/** A shelf that is lower reaches down to where decay is that of the middle. */
const MIN_HIGHS_HZ = 2500;
const TRIES = 6;
const MIN_SHELF_DB = -72;
const MAX_SHELF_DB = 14;
const SHALLOWER = 0.8;
const SHALLOWER_TIMES = 8;
/** Maximum ratio by which the plateau beside a deep shelf may ring longer than set. */
const MAX_PLATEAU = 1.6;

/** Decays in seconds of the middle, the lows and the highs. */
export interface Decays {
  middle: number;
  low: number;
  high: number;
  highFromHz: number;
}

/**
 * Computes the attenuation of each line from decays: in decibels, proportional to the line's length, exact for the
 * octaves at 125 Hz, 1 kHz and 8 kHz.
 * Source: J.-M. Jot, "An analysis/synthesis approach to real-time artificial reverberation" (1992).
 */
export class Absorption {
  private readonly low: Section = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 };
  private readonly high: Section = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 };
  private lowDb = 0;
  private highDb = 0;
  private lowT = 0;
  private highT = 0;
  private lowQ = 0;
  private highQ = 0;
  /** Frequencies where decays are exact, over the middle of either shelf, warped as the bilinear transform does. */
  private readonly lowAt = new Float64Array(3);
  private readonly highAt = new Float64Array(3);
  /** Gains in decibels there, without the gain of the line. */
  private readonly gains = new Float64Array(3);

  constructor(private readonly sampleRate: number) {}

  /**
   * @param lengths of the lines in samples
   * @param keep 0 for the full attenuation, 1 for none
   * @param yieldDb additional attenuation in dB per second
   */
  aim(
    network: FeedbackNetwork,
    lengths: Float64Array,
    decays: Decays,
    contour: DecayContour,
    keep: number,
    yieldDb: number,
  ): void {
    this.setFrequencies(decays.highFromHz, contour);
    for (let line = 0; line < NETWORK_LINES; line += 1) {
      const seconds = lengths[line]! / this.sampleRate;
      const fall = -60 * seconds * (1 - keep);
      const middleDb = fall / decays.middle - yieldDb * seconds;
      this.solve(fall / decays.low - fall / decays.middle, fall / decays.high - fall / decays.middle);
      this.send(network, line, this.balance(middleDb));
    }
  }

  private send(network: FeedbackNetwork, line: number, gain: number): void {
    const { low, high } = this;
    lowShelf(low, this.lowDb, this.lowT, this.lowQ);
    highShelf(high, this.highDb, this.highT, this.highQ);
    network.aim(line, 0, low.b0 * gain);
    network.aim(line, 1, low.b1 * gain);
    network.aim(line, 2, low.b2 * gain);
    network.aim(line, 3, low.a1);
    network.aim(line, 4, low.a2);
    network.aim(line, 5, high.b0);
    network.aim(line, 6, high.b1);
    network.aim(line, 7, high.b2);
    network.aim(line, 8, high.a1);
    network.aim(line, 9, high.a2);
  }

  /** Places both shelves, and the frequencies where decays are exact. */
  private setFrequencies(highFromHz: number, contour: DecayContour): void {
    const { sampleRate } = this;
    this.lowT = warped(contour.lowHz, sampleRate);
    this.highT = warped(Math.max(MIN_HIGHS_HZ, contour.highs * highFromHz), sampleRate);
    this.lowQ = contour.lowQ;
    this.highQ = contour.highQ;
    const highest = Math.min(Math.max(HIGH_EXACT_HZ, ABOVE_HIGHS * highFromHz), HIGHEST_SHARE * sampleRate);
    for (let k = 0; k < 3; k += 1) {
      const t = warped(k === 0 ? LOW_EXACT_HZ : k === 1 ? REFERENCE_HZ : highest, sampleRate);
      this.lowAt[k] = t / this.lowT;
      this.highAt[k] = t / this.highT;
    }
  }

  /**
   * Finds both shelves, so that together they give so many decibels more at the lows and at the highs than in the
   * middle.
   */
  private solve(lowDb: number, highDb: number): void {
    this.lowDb = limited(lowDb);
    this.highDb = limited(highDb);
    const { gains } = this;
    this.read();
    if (lowDb === 0 && highDb === 0) return;
    for (let k = 0; k < TRIES; k += 1) {
      this.lowDb = limited(this.lowDb + lowDb - gains[0]! + gains[1]!);
      this.highDb = limited(this.highDb + highDb - gains[2]! + gains[1]!);
      this.read();
    }
  }

  private read(): void {
    const low = shelfRoot(this.lowDb);
    const high = shelfRoot(this.highDb);
    for (let k = 0; k < 3; k += 1) {
      const power = lowShelfPower(low, this.lowAt[k]!, this.lowQ) * highShelfPower(high, this.highAt[k]!, this.highQ);
      this.gains[k] = 10 * Math.log10(power);
    }
  }

  /**
   * Gain of the line that is exact at 1 kHz. The plateau between deep shelves would ring too long by it: then they are
   * made shallower.
   */
  private balance(middleDb: number): number {
    const most = middleDb / MAX_PLATEAU;
    for (let k = 0; k < SHALLOWER_TIMES && middleDb - this.gains[1]! > most; k += 1) {
      if (this.lowDb < 0) this.lowDb *= SHALLOWER;
      if (this.highDb < 0) this.highDb *= SHALLOWER;
      this.read();
    }
    return Math.pow(10, Math.min(middleDb - this.gains[1]!, most) / 20);
  }
}

/** As the bilinear transform warps a frequency. */
const warped = (hz: number, sampleRate: number): number =>
  Math.tan((Math.PI * Math.min(hz, 0.45 * sampleRate)) / sampleRate);
const limited = (db: number): number => (db < MIN_SHELF_DB ? MIN_SHELF_DB : db > MAX_SHELF_DB ? MAX_SHELF_DB : db);
