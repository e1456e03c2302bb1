import { DelayLine } from '../dsp/delayLine';
import { STEP_FRAMES, type StereoRun } from '../effects/define';

/** Longest look-ahead of any effect, in seconds. */
const LONGEST_SECONDS = 0.02;

/** Keeps the untreated sound in step with an effect that is late, so that both can be mixed. */
export class DryPath {
  private readonly left: DelayLine;
  private readonly right: DelayLine;

  constructor(sampleRate: number) {
    const longest = LONGEST_SECONDS * sampleRate + 2 * STEP_FRAMES;
    this.left = new DelayLine(longest, STEP_FRAMES);
    this.right = new DelayLine(longest, STEP_FRAMES);
  }

  clear(): void {
    this.left.clear();
    this.right.clear();
  }

  /** In place. @param samples whole samples, at most LONGEST_SECONDS of them */
  process(run: StereoRun, samples: number): void {
    this.left.write(run.left, STEP_FRAMES);
    this.right.write(run.right, STEP_FRAMES);
    this.left.readFixed(STEP_FRAMES + samples, STEP_FRAMES, run.left);
    this.right.readFixed(STEP_FRAMES + samples, STEP_FRAMES, run.right);
  }
}
