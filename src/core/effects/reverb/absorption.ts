import type { FeedbackNetwork } from '../../dsp/feedbackNetwork';
import { NETWORK_LINES } from '../../dsp/networkMemory';
import { highShelf, lowShelf, sectionGain, type Section } from '../../dsp/shelf';

const REFERENCE_HZ = 1000;
const LOW_HZ = 250;
/** Where decays of lows and highs are what they are set to. */
const LOW_EXACT_HZ = 125;
const HIGH_EXACT_HZ = 8000;
/** A shelf reaches this share of its gain there, about; then it is brought nearer so many times. */
const SHELF_SHARE = 0.8;
const TRIES = 3;
const DEEPEST_DB = -48;
const HIGHEST_DB = 12;
const SHALLOWER = 0.8;
const SHALLOWER_TIMES = 8;
/** The plateau beside a deep shelf may ring this much longer than set, no more. */
const MOST_PLATEAU = 1.6;

/** Decays in seconds of the middle, the lows and the highs. */
export interface Decays {
  middle: number;
  low: number;
  high: number;
  highFromHz: number;
}

/**
 * Turns decays into what each line has to lose on its way, proportional to its length in decibels, exact at 125 Hz, 1 kHz and 8 kHz where
 * first-order shelves can be so steep.
 * Source: J.-M. Jot, "An analysis/synthesis approach to real-time artificial reverberation" (1992).
 */
export class Absorption {
  private readonly low: Section = { b0: 1, b1: 0, a1: 0 };
  private readonly high: Section = { b0: 1, b1: 0, a1: 0 };
  private readonly cosine: number;
  private lowTry = 0;
  private highTry = 0;
  private readonly lowCosine: number;
  private readonly highCosine: number;
  private readonly lowT: number;

  constructor(private readonly sampleRate: number) {
    this.cosine = Math.cos((2 * Math.PI * REFERENCE_HZ) / sampleRate);
    this.lowCosine = Math.cos((2 * Math.PI * LOW_EXACT_HZ) / sampleRate);
    this.highCosine = Math.cos((2 * Math.PI * Math.min(HIGH_EXACT_HZ, 0.45 * sampleRate)) / sampleRate);
    this.lowT = Math.tan((Math.PI * LOW_HZ) / sampleRate);
  }

  /** @param lengths of the lines in samples  @param keep 0 lets the lines lose as they should, 1 lets them lose nothing  @param yieldDb what they lose beside, in dB a second */
  aim(network: FeedbackNetwork, lengths: Float64Array, decays: Decays, keep: number, yieldDb: number): void {
    const { low, high } = this;
    const highT = Math.tan((Math.PI * Math.min(decays.highFromHz, 0.45 * this.sampleRate)) / this.sampleRate);
    for (let line = 0; line < NETWORK_LINES; line += 1) {
      const seconds = lengths[line]! / this.sampleRate;
      const fall = -60 * seconds * (1 - keep);
      const middleDb = fall / decays.middle - yieldDb * seconds;
      this.bend(fall / decays.low - fall / decays.middle, fall / decays.high - fall / decays.middle, highT);
      const gain = this.balance(middleDb, highT);
      network.aim(line, 0, low.b0 * gain);
      network.aim(line, 1, low.b1 * gain);
      network.aim(line, 2, low.a1);
      network.aim(line, 3, high.b0);
      network.aim(line, 4, high.b1);
      network.aim(line, 5, high.a1);
    }
  }

  /** Makes both shelves, so that together they give so many decibels more at 125 Hz and at 8 kHz than at 1 kHz. */
  private bend(lowDb: number, highDb: number, highT: number): void {
    this.lowTry = lowDb / SHELF_SHARE;
    this.highTry = highDb / SHELF_SHARE;
    for (let k = 0; ; k += 1) {
      this.make(highT);
      if (k === TRIES || (lowDb === 0 && highDb === 0)) return;
      const middle = this.gainAt(this.cosine);
      this.lowTry += lowDb - 20 * Math.log10(this.gainAt(this.lowCosine) / middle);
      this.highTry += highDb - 20 * Math.log10(this.gainAt(this.highCosine) / middle);
    }
  }

  private make(highT: number): void {
    this.lowTry = limited(this.lowTry);
    this.highTry = limited(this.highTry);
    lowShelf(this.low, Math.pow(10, this.lowTry / 20), this.lowT);
    highShelf(this.high, Math.pow(10, this.highTry / 20), highT);
  }

  /** Gain of the line that is exact at 1 kHz. The plateau between deep shelves would ring too long by it: then they are made less deep. */
  private balance(middleDb: number, highT: number): number {
    const wanted = Math.pow(10, middleDb / 20);
    const most = Math.pow(10, middleDb / MOST_PLATEAU / 20);
    for (let k = 0; k < SHALLOWER_TIMES && wanted > most * this.gainAt(this.cosine); k += 1) {
      if (this.lowTry < 0) this.lowTry *= SHALLOWER;
      if (this.highTry < 0) this.highTry *= SHALLOWER;
      this.make(highT);
    }
    const exact = wanted / this.gainAt(this.cosine);
    return exact < most ? exact : most;
  }

  private gainAt(cosine: number): number {
    return sectionGain(this.low, cosine) * sectionGain(this.high, cosine);
  }
}

const limited = (db: number): number => (db < DEEPEST_DB ? DEEPEST_DB : db > HIGHEST_DB ? HIGHEST_DB : db);
