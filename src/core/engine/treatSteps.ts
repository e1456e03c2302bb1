import type { SoundData } from '../dsp/soundData';
import { stretched } from '../dsp/stretch';
import type { TreatStep } from '../piece/piece';
import { treat } from './treat';

export interface Treating {
  readonly channels: SoundData;
  readonly steps: readonly TreatStep[];
  readonly sampleRate: number;
  readonly bpm: number;
  /** Sounds that effects of the steps use. */
  readonly sounds: ReadonlyMap<string, SoundData>;
  readonly onStep?: (done: number) => void;
}

export interface SoundTreated {
  readonly channels: SoundData;
  /** Frames without the tail. */
  readonly bodyFrames: number;
}

/** Processes a part of a sound by its steps in order; those that are off are skipped. */
export function treatSteps({ channels, steps, sampleRate, bpm, sounds, onStep }: Treating): SoundTreated {
  let now: SoundData = channels;
  let body = channels[0]!.length;
  steps.forEach((step, i) => {
    if (step.on && step.kind === 'stretch') {
      now = stretched(now, sampleRate, step);
      body = Math.max(1, Math.min(now[0]!.length, Math.round(body * step.times)));
    } else if (step.on && step.kind === 'chain') {
      const { left, right } = treat({
        sound: now,
        others: sounds,
        sampleRate,
        bpm,
        chain: step.chain,
        tail: step.rings ? { kind: 'silent' } : { kind: 'seconds', seconds: 0 },
        hear: 'mix',
      });
      now = [left, right];
    }
    onStep?.(i + 1);
  });
  return { channels: now, bodyFrames: body };
}
