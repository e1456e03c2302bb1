import { placeByBars } from '../music/grid';
import { spanAt } from '../music/metre';
import { lastAtOrUnder, samplesToBeats, type Tempo } from '../music/tempo';
import { tempoOfPlan, type Plan } from './plan';

/** Converts sample positions to musical time where tempo or metre change; where neither does it changes nothing. */
export class TempoClock {
  /** Position of the present beat at the piece's own constant tempo, in samples: lanes and note values use it. */
  sample = 0;
  /** Length of a beat here over its length at the piece's own tempo. */
  tempoRatio = 1;
  /** Length of a bar here, in beats, over that of the piece's own. */
  barRatio = 1;
  /** Like `sample`, as if every bar were as long as the piece's own: note values in bars use it. */
  barSample = 0;
  private readonly tempo: Tempo | null;

  constructor(private readonly plan: Plan | null) {
    this.tempo = plan && tempoOfPlan(plan);
  }

  get isVarying(): boolean {
    return this.plan?.tempoMap != null || this.changesMetre;
  }

  private get changesMetre(): boolean {
    return this.plan !== null && this.plan.metres.length > 1;
  }

  read(sample: number): void {
    const { plan } = this;
    const map = plan?.tempoMap;
    this.sample = this.sampleAt(sample);
    this.barSample = this.sample;
    if (this.changesMetre) {
      this.barSample = this.barSampleAt(sample);
      this.barRatio = spanAt(this.beatAt(sample), plan!.metres).beatsPerBar / plan!.beatsPerBar;
    }
    if (map) this.tempoRatio = plan!.bpm / map.bpm[lastAtOrUnder(map.seconds, sample / plan!.sampleRate)]!;
  }

  /** Position at the piece's own constant tempo of the beat at a sample of the piece. */
  sampleAt(sample: number): number {
    const { plan, tempo } = this;
    if (!plan || !tempo?.map) return sample;
    return (this.beatAt(sample) * 60 * plan.sampleRate) / plan.bpm;
  }

  /** Like `sampleAt`, as if every bar were as long as the piece's own. */
  barSampleAt(sample: number): number {
    const { plan, tempo } = this;
    if (!plan || !tempo || !this.changesMetre) return this.sampleAt(sample);
    return (placeByBars(this.beatAt(sample), plan.metres, plan.beatsPerBar) * 60 * plan.sampleRate) / plan.bpm;
  }

  private beatAt(sample: number): number {
    return samplesToBeats(sample, this.tempo!, this.plan!.sampleRate);
  }
}
