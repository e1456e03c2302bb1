import { STANDING, type MetreStretch, type StepTime } from '../effects/stepTime';
import { SLACK_BEATS } from '../music/metre';
import { lastAtOrUnder } from '../music/tempo';
import type { Plan } from './plan';

/** Musical time of the step that is being processed, by the tempo map. */
export class StepClock implements StepTime {
  playing = false;
  beatsPerBar = 4;
  /** Samples by which the sound that enters the next effect is late: its place in the piece lies so much before. */
  latency = 0;
  private plan: Plan | null = null;
  /** Place in the piece of the step's first sample. */
  private sample = 0;

  setPlan(plan: Plan): void {
    this.plan = plan;
    this.beatsPerBar = plan.beatsPerBar;
  }

  /** @param sample place in the piece of the step's first sample */
  begin(sample: number, playing: boolean): void {
    this.sample = sample;
    this.playing = playing;
  }

  get beat(): number {
    const { plan } = this;
    if (!plan) return 0;
    const seconds = (this.sample - this.latency) / plan.sampleRate;
    const map = plan.tempoMap;
    if (!map) return (seconds * plan.bpm) / 60;
    const at = lastAtOrUnder(map.seconds, seconds);
    return map.beats[at]! + ((seconds - map.seconds[at]!) * map.bpm[at]!) / 60;
  }

  get metre(): MetreStretch {
    const { plan } = this;
    if (!plan) return STANDING.metre;
    const { metres } = plan;
    let at = metres.length - 1;
    if (at === 0) return metres[0]!;
    const beat = this.beat + SLACK_BEATS;
    while (at > 0 && metres[at]!.beat > beat) at -= 1;
    return metres[at]!;
  }

  samplesUntil(beat: number): number {
    const { plan } = this;
    if (!plan) return 0;
    const map = plan.tempoMap;
    const at = map ? lastAtOrUnder(map.beats, beat) : 0;
    const seconds = map ? map.seconds[at]! + ((beat - map.beats[at]!) * 60) / map.bpm[at]! : (beat * 60) / plan.bpm;
    // Rounded as places of clips are.
    return Math.round(seconds * plan.sampleRate) - (this.sample - this.latency);
  }
}
