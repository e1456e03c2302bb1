import type { SoundData } from '../dsp/soundData';
import { STEP_FRAMES } from '../dsp/blocks';
import { Follower } from '../automation/follower';
import { FOLLOWER_KIND } from '../automation/modulator';
import type { RunningChannel } from './channel';
import type { Plan } from './plan';

/** Time constants after which a follower's state no longer depends on earlier input: 0.1 %. */
const FORGOTTEN = 7;

/** Envelope followers of a plan, by index of its modulators; those whose settings stay keep their state. */
export class Followers {
  readonly some: boolean;
  private readonly all: readonly (Follower | null)[];
  private readonly sources: readonly number[];

  constructor(
    plan: Plan | null,
    private readonly sampleRate: number,
    before: Followers | null = null,
  ) {
    const modulators = plan?.modulators ?? [];
    this.sources = modulators.map(({ source }) => source);
    this.all = modulators.map(({ kind, source, attackMs, releaseMs }, i) => {
      if (kind !== FOLLOWER_KIND || source < 0) return null;
      const kept = before?.all[i];
      return kept?.attackMs === attackMs && kept.releaseMs === releaseMs
        ? kept
        : new Follower(attackMs, releaseMs, STEP_FRAMES, sampleRate);
    });
    this.some = this.all.some((follower) => follower !== null);
  }

  /** Output of one, 0-1; 0 for a modulator that is no follower. */
  at(modulator: number): number {
    return this.all[modulator]?.now ?? 0;
  }

  /** Processes a step of the clips of each followed channel, before its effects. */
  process(channels: readonly RunningChannel[]): void {
    for (let i = 0; i < this.all.length; i += 1) this.all[i]?.process(channels[this.sources[i]!]!.bus);
  }

  /** Processes what comes before a position, so that the state there is that of playing from the start. */
  prime(channels: readonly RunningChannel[], sounds: ReadonlyMap<string, SoundData>, place: number): void {
    this.all.forEach((follower, i) => {
      if (!follower) return;
      const channel = channels[this.sources[i]!]!;
      const steps = Math.ceil((FORGOTTEN * follower.releaseMs * this.sampleRate) / 1000 / STEP_FRAMES);
      follower.clear();
      for (let step = steps; step > 0; step -= 1) {
        channel.clear();
        channel.readClips(sounds, place - step * STEP_FRAMES, STEP_FRAMES, 0, -1, Infinity);
        follower.process(channel.bus);
      }
      channel.clear();
    });
  }
}
