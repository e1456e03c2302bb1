import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { partialCoefficient, smoothToward } from '../dsp/onePole';
import { SEND_LEVEL } from '../piece/piece';
import { LatencyCompensator } from '../effects/latencyCompensator';
import type { PlanSend } from './plan';
import type { EngineContext } from './engineContext';
import { ParameterSmoother } from './parameterSmoother';

/** What a send can write to: a return. */
export interface Receiver {
  /** @param offset sample of the step from which the share moves */
  receive(block: StereoBlock, from: number, to: number, offset: number): void;
  /** Latency of what it receives, in samples. */
  readonly inputLatency: number;
  /** Raises the input latency to at least this. */
  raiseInputLatency(samples: number): void;
}

/** A running send. A new one fades in, a removed one fades out. */
export class RunningSend {
  readonly to: string;
  readonly values: ParameterSmoother;
  target: Receiver | null = null;
  pre: boolean;
  private now = 0;
  private leaving = false;
  private compensator: LatencyCompensator | null = null;
  private delayed: StereoBlock | null = null;

  constructor(
    plan: PlanSend,
    private readonly context: EngineContext,
    private readonly share: number,
  ) {
    this.to = plan.to;
    this.pre = plan.pre;
    this.values = new ParameterSmoother([SEND_LEVEL], plan.values, context.sampleRate);
  }

  /** True while it is audible. */
  get fading(): boolean {
    return this.now > 0;
  }

  adopt(plan: PlanSend): void {
    this.pre = plan.pre;
    this.leaving = false;
    this.values.rebase(plan.values);
    this.values.clearLanes();
    this.values.clearLinks();
  }

  leave(): void {
    this.leaving = true;
  }

  /** The send has ended: frees its block. */
  release(): void {
    if (this.delayed) this.context.mixer.free(this.delayed);
    this.delayed = null;
  }

  /** Jumps to its level; for the start of playing. */
  jump(): void {
    this.values.jump();
    this.now = this.leaving ? 0 : this.values.now[0]!;
  }

  /** Allocates the ring that delays this send for others that are later. */
  prepareCompensation(): void {
    this.compensator ??= new LatencyCompensator(this.context.sampleRate);
    this.delayed ??= this.context.mixer.allocate();
  }

  /** Jumps to its delay; for the start of playing. @param latency of the signal it is given, in samples */
  resetCompensation(latency: number): void {
    if (this.compensator?.silent && this.target) this.compensator.reset(this.target.inputLatency - latency);
  }

  /** Clears its delay; a send that was removed ends. */
  forget(): void {
    this.compensator?.reset(0);
    if (this.leaving) this.now = 0;
  }

  /** True while delayed samples are still to come out. */
  get ringing(): boolean {
    return this.compensator !== null && !this.compensator.silent;
  }

  /**
   * Adds a block to the target at the send's level.
   * @param open share that the channel lets through
   * @param latency of the block, in samples
   */
  addToReturn(block: StereoBlock, open: number, latency: number, sounding: boolean): void {
    this.values.step();
    const goal = this.leaving ? 0 : this.values.now[0]! * open;
    const offset = this.values.offsetOf(0);
    const share = offset === 0 ? this.share : partialCoefficient(this.share, 1 - offset / STEP_FRAMES);
    const next = smoothToward(this.now, goal, share, 1e-6);
    const inStep = this.compensator
      ? this.compensator.process(block, this.delayed!, this.target!.inputLatency - latency, sounding)
      : block;
    this.target!.receive(inStep, this.now, next, offset);
    this.now = next;
  }
}
