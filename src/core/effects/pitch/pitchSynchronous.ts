import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { SincRings } from '../../dsp/sincRings';
import { PitchSynchronousGrains } from './pitchSynchronousGrains';

const RING = 16_384;

/** Shifts the pitch and the formants of one voice independently, with a latency. */
export class PitchSynchronousShift {
  private readonly rings = new SincRings(RING);
  private readonly grains: PitchSynchronousGrains;
  private readonly order = { position: 0, timeSpeed: 1, newest: 0, ratio: 1, formantRatio: 1 };
  private written = 0;

  /** @param latency in samples, more than two of the longest periods */
  constructor(
    sampleRate: number,
    private readonly latency: number,
  ) {
    this.grains = new PitchSynchronousGrains(sampleRate, this.rings);
  }

  clear(): void {
    this.rings.clear();
    this.written = 0;
    this.grains.clear();
  }

  /**
   * Replaces the pitched part of `wet`.
   * @param ratio of the pitch
   * @param formantRatio ratio by which its formants are shifted
   * @param apart false leaves `wet` unchanged
   */
  process(input: StereoBlock, wet: StereoBlock, ratio: number, formantRatio: number, apart: boolean): void {
    this.rings.write(this.written, input.left, input.right, STEP_FRAMES);
    const { order } = this;
    order.position = this.written - this.latency;
    order.newest = this.written + STEP_FRAMES - 1;
    order.ratio = ratio;
    order.formantRatio = formantRatio;
    this.grains.add(wet, 0, STEP_FRAMES, order, apart);
    this.written += STEP_FRAMES;
  }
}
