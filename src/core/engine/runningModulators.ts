import { FOLLOWER_KIND, MACRO_KIND, RUN_KIND } from '../automation/modulator';
import { modulatorAt, stepIndexAt, type ModulatorTrack } from '../automation/modulatorTrack';
import { STEP_FRAMES } from '../dsp/blocks';
import type { RunningChannel } from './channel';
import { Followers } from './followers';
import type { Plan } from './plan';
import type { TempoClock } from './tempoClock';

/** Evaluates the modulators of a plan, once a step. */
export class RunningModulators {
  readonly followers: Followers;
  /** Outputs in the plan's order, -1 to 1. */
  readonly outputs: Float64Array;
  /** Index of the step that each run is in; -1 while its hold is silent, and for other modulators. */
  readonly steps: Float64Array;
  private readonly tracks: readonly ModulatorTrack[];

  /** @param before those of the plan before, whose followers keep their state */
  constructor(plan: Plan | null, sampleRate: number, before: RunningModulators | null = null) {
    this.tracks = plan?.modulators ?? [];
    this.outputs = new Float64Array(this.tracks.length);
    this.steps = new Float64Array(this.tracks.length).fill(-1);
    this.followers = new Followers(plan, sampleRate, before?.followers ?? null);
  }

  /**
   * Evaluates all of them at the end of a step.
   * @param clock read there  @param position sample of the piece there  @param main the channel that has the macros
   */
  evaluate(
    clock: TempoClock,
    position: number,
    channels: readonly RunningChannel[],
    main: RunningChannel | null,
  ): void {
    const { tracks, outputs: turns } = this;
    let macro = 0;
    for (let i = 0; i < tracks.length; i += 1) {
      const track = tracks[i]!;
      if (track.kind === FOLLOWER_KIND) turns[i] = this.followers.at(i);
      else if (track.kind === RUN_KIND) {
        const frames = runFrames(track, clock, position, channels);
        turns[i] = modulatorAt(track, frames);
        this.steps[i] = frames === 0 ? -1 : stepIndexAt(track, frames);
      } else if (track.kind !== MACRO_KIND) turns[i] = modulatorAt(track, placeOf(track, clock, position));
      else {
        turns[i] = main?.macros[macro]?.now[0] ?? 0;
        macro += 1;
      }
    }
  }
}

/** The place by which a modulator turns. */
function placeOf({ byBar, byBeat }: ModulatorTrack, clock: TempoClock, position: number): number {
  return byBar ? clock.barSample : byBeat ? clock.sample : position;
}

/**
 * Samples since the hold of a run began, at the end of the step; counted at the piece's own tempo where its rate is a
 * note value. 0 while the hold is silent: the run keeps its first step, so that the hold begins with it.
 */
function runFrames(
  { source, sourceSlot, byBeat, byBar }: ModulatorTrack,
  clock: TempoClock,
  position: number,
  channels: readonly RunningChannel[],
): number {
  const held = source < 0 ? 0 : (channels[source]?.chain.every[sourceSlot]?.heldFrames ?? 0);
  if (held === 0) return 0;
  const frames = held + STEP_FRAMES;
  if (byBar) return clock.barSample - clock.barSampleAt(position - frames);
  return byBeat ? clock.sample - clock.sampleAt(position - frames) : frames;
}
