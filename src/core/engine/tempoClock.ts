import { lastAtOrUnder, samplesToBeats, type Tempo } from '../music/tempo';
import { tempoOfPlan, type Plan } from './plan';

/** Converts sample positions to musical time where the tempo changes; with a constant tempo it changes nothing. */
export class TempoClock {
  /** Position of the present beat at the piece's own constant tempo, in samples: lanes and note values use it. */
  sample = 0;
  /** Length of a beat here over its length at the piece's own tempo. */
  tempoRatio = 1;
  private readonly tempo: Tempo | null;

  constructor(private readonly plan: Plan | null) {
    this.tempo = plan && tempoOfPlan(plan);
  }

  get isVarying(): boolean {
    return this.plan?.tempoMap != null;
  }

  read(sample: number): void {
    const { plan } = this;
    const map = plan?.tempoMap;
    this.sample = this.sampleAt(sample);
    if (map) this.tempoRatio = plan!.bpm / map.bpm[lastAtOrUnder(map.seconds, sample / plan!.sampleRate)]!;
  }

  /** Where, at the piece's own constant tempo, the beat lies that a sample of the piece is on. */
  sampleAt(sample: number): number {
    const { plan, tempo } = this;
    if (!plan || !tempo?.map) return sample;
    return (samplesToBeats(sample, tempo, plan.sampleRate) * 60 * plan.sampleRate) / plan.bpm;
  }
}
