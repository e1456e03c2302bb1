import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';

/** Energy of a step that counts as silence: -200 dBFS. */
const NOTHING = STEP_FRAMES * 1e-20;

/**
 * Feedback of a cloud of grains into the line from which they are taken. Grains that read the same position add up in
 * phase, so the cloud may be louder than the line; here no more energy goes back than `feedback^2` of what the line
 * holds over the stretch that grains reach, once for each time that the stretch passes. Below 100 % the cloud therefore
 * always dies away.
 * Source: B. Hannaford, J.-H. Ryu, "Time-Domain Passivity Control of Haptic Interfaces" (2002).
 */
export class CloudFeedback {
  /** Energy written up to the end of each step. */
  private readonly written: Float64Array;
  private readonly mask: number;
  private step = 0;
  private budget = 0;
  private gain = 1;

  /** @param ringFrames samples that the line holds, a power of two */
  constructor(ringFrames: number) {
    this.written = new Float64Array(ringFrames / STEP_FRAMES);
    this.mask = this.written.length - 1;
  }

  clear(): void {
    this.written.fill(0);
    this.step = 0;
    this.budget = 0;
    this.gain = 1;
  }

  /** Adds the energy of a step that was written into the line. */
  addWritten({ left, right }: StereoBlock): void {
    let energy = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) energy += left[i]! * left[i]! + right[i]! * right[i]!;
    const before = this.written[this.step & this.mask]!;
    this.step += 1;
    this.written[this.step & this.mask] = before + energy;
  }

  /** Scales a step of the cloud, in place, to the feedback. @param reachFrames how far back grains are read */
  process(cloud: StereoBlock, feedback: number, reachFrames: number): void {
    const { left, right } = cloud;
    const steps = Math.min(this.step, this.mask, Math.max(1, Math.ceil(reachFrames / STEP_FRAMES)));
    const held =
      steps === 0 ? 0 : this.written[this.step & this.mask]! - this.written[(this.step - steps) & this.mask]!;
    const most = feedback * feedback * (held < NOTHING ? 0 : held);
    this.budget = Math.min(most, this.budget + most / Math.max(1, steps));
    let cost = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) cost += left[i]! * left[i]! + right[i]! * right[i]!;
    cost *= feedback * feedback;
    const gain = cost <= this.budget ? 1 : this.budget <= 0 ? 0 : Math.sqrt(this.budget / cost);
    // The gain is ramped linearly over the step, so that the higher of its ends counts.
    const paid = gain > this.gain ? gain : this.gain;
    this.budget = Math.max(-most, this.budget - cost * paid * paid);
    const move = (gain - this.gain) / STEP_FRAMES;
    let level = feedback * this.gain;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      level += feedback * move;
      left[i] = left[i]! * level;
      right[i] = right[i]! * level;
    }
    this.gain = gain;
  }
}
