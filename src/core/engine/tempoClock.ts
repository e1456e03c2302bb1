import { lastAtOrUnder } from '../music/tempo';
import type { Plan } from './plan';

/** Where the piece stands by its own beat. While the tempo does not move that is the sample itself. */
export class TempoClock {
  /** The sample at which this beat would lie if the tempo never moved: what lanes and note values are counted by. */
  sample = 0;
  /** A length of so many beats here, over the same in the unmoved tempo. */
  tempoRatio = 1;

  constructor(private readonly plan: Plan | null) {}

  get isVarying(): boolean {
    return this.plan?.tempoMap != null;
  }

  read(sample: number): void {
    const { plan } = this;
    const map = plan?.tempoMap;
    if (!map) {
      this.sample = sample;
      return;
    }
    const seconds = sample / plan!.sampleRate;
    const at = lastAtOrUnder(map.seconds, seconds);
    const beat = map.beats[at]! + ((seconds - map.seconds[at]!) * map.bpm[at]!) / 60;
    this.sample = (beat * 60 * plan!.sampleRate) / plan!.bpm;
    this.tempoRatio = plan!.bpm / map.bpm[at]!;
  }
}
