import { lastAtOrUnder } from '../music/tempo';
import type { StereoBlock } from '../dsp/blocks';

/** At this level and below it is 0, at full scale 1; linear in dB between. */
const FLOOR_DB = -60;

/** Envelope follower of a track's clips, before its effects, with attack and release. */
export class Follower {
  /** 0 for silence to 1 for full scale. */
  now = 0;
  private level = 0;
  private readonly rise: number;
  private readonly fall: number;

  /** @param attackMs, releaseMs time constants */
  constructor(
    readonly attackMs: number,
    readonly releaseMs: number,
    frames: number,
    sampleRate: number,
  ) {
    const share = (ms: number): number => 1 - Math.exp((-1000 * frames) / (ms * sampleRate));
    this.rise = share(attackMs);
    this.fall = share(releaseMs);
  }

  clear(): void {
    this.level = 0;
    this.now = 0;
  }

  /** Processes a step. */
  process({ left, right }: StereoBlock): void {
    let peak = 0;
    for (let i = 0; i < left.length; i += 1) {
      const l = left[i]! < 0 ? -left[i]! : left[i]!;
      const r = right[i]! < 0 ? -right[i]! : right[i]!;
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    this.level += (peak - this.level) * (peak > this.level ? this.rise : this.fall);
    if (this.level < 1e-6) this.level = 0;
    const db = this.level > 0 ? 20 * Math.log10(this.level) : FLOOR_DB;
    this.now = db <= FLOOR_DB ? 0 : db >= 0 ? 1 : 1 - db / FLOOR_DB;
  }
}

/** The values of a follower, step by step through a piece. */
export interface FollowedLevels {
  /** Beat at the end of each step, rising. */
  readonly beats: Float64Array;
  /** Value of the follower from there on, 0 to 1. */
  readonly values: Float64Array;
}

/** Value of the follower at a beat: 0 before its first step, and through the piece without a track to follow. */
export const followedAt = ({ beats, values }: FollowedLevels, beat: number): number =>
  values[lastAtOrUnder(beats, beat)] ?? 0;
