import type { FeedbackNetwork } from '../../dsp/feedbackNetwork';
import { NETWORK_LINES } from '../../dsp/networkMemory';
import { highShelf, lowShelf, sectionGain, type Section } from '../../dsp/shelf';

const REFERENCE_HZ = 1000;
const LOW_HZ = 250;
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
 * Turns decays into what each line has to lose on its way, proportional to its length in decibels, exact at 1 kHz.
 * Source: J.-M. Jot, "An analysis/synthesis approach to real-time artificial reverberation" (1992).
 */
export class Absorption {
  private readonly low: Section = { b0: 1, b1: 0, a1: 0 };
  private readonly high: Section = { b0: 1, b1: 0, a1: 0 };
  private readonly cosine: number;
  private readonly lowT: number;

  constructor(private readonly sampleRate: number) {
    this.cosine = Math.cos((2 * Math.PI * REFERENCE_HZ) / sampleRate);
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
      lowShelf(low, Math.pow(10, (fall / decays.low - fall / decays.middle) / 20), this.lowT);
      highShelf(high, Math.pow(10, (fall / decays.high - fall / decays.middle) / 20), highT);
      const exact = Math.pow(10, middleDb / 20) / (sectionGain(low, this.cosine) * sectionGain(high, this.cosine));
      const most = Math.pow(10, middleDb / MOST_PLATEAU / 20);
      const gain = exact < most ? exact : most;
      network.aim(line, 0, low.b0 * gain);
      network.aim(line, 1, low.b1 * gain);
      network.aim(line, 2, low.a1);
      network.aim(line, 3, high.b0);
      network.aim(line, 4, high.b1);
      network.aim(line, 5, high.a1);
    }
  }
}
