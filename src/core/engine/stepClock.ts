import { STANDING, type MetreStretch, type StepTime } from '../effects/stepTime';
import { beatOfBarPlace, placeByBars } from '../music/grid';
import { spanAt } from '../music/metre';
import { beatsToSamples, samplesToBeats, type Tempo } from '../music/tempo';
import { tempoOfPlan, type Plan } from './plan';

/** Musical time of the step that is being processed, by the tempo map. */
export class StepClock implements StepTime {
  playing = false;
  beatsPerBar = 4;
  /** Latency in samples of the sound that enters the next effect: its position in the piece is that much earlier. */
  latency = 0;
  private plan: Plan | null = null;
  private tempo: Tempo | null = null;
  /** Position in the piece of the step's first sample. */
  private sample = 0;

  setPlan(plan: Plan): void {
    this.plan = plan;
    this.tempo = tempoOfPlan(plan);
    this.beatsPerBar = plan.beatsPerBar;
  }

  /** @param sample position in the piece of the step's first sample */
  begin(sample: number, playing: boolean): void {
    this.sample = sample;
    this.playing = playing;
  }

  get beat(): number {
    const { plan, tempo } = this;
    return plan && tempo ? samplesToBeats(this.sample - this.latency, tempo, plan.sampleRate) : 0;
  }

  get barBeat(): number {
    return this.plan ? placeByBars(this.beat, this.plan.metres, this.beatsPerBar) : 0;
  }

  get metre(): MetreStretch {
    return this.plan ? spanAt(this.beat, this.plan.metres) : STANDING.metre;
  }

  samplesUntil(beat: number): number {
    const { plan, tempo } = this;
    return plan && tempo ? beatsToSamples(beat, tempo, plan.sampleRate) - (this.sample - this.latency) : 0;
  }

  samplesUntilBarBeat(barBeat: number): number {
    return this.plan ? this.samplesUntil(beatOfBarPlace(barBeat, this.plan.metres, this.beatsPerBar)) : 0;
  }
}
