import type { StereoBlock } from '../dsp/blocks';
import type { StrandWork } from '../effects/define';
import { LatencyCompensator } from '../effects/latencyCompensator';
import type { PlanSlot } from './plan';

/** A chain nested in an effect. */
export interface InnerChain<Slot> {
  /** Its effects and those within them, in the order of the plan. */
  readonly every: Slot[];
  readonly silent: boolean;
  /** Its latency in samples. */
  readonly latency: number;
  adopt(plans: readonly PlanSlot[], entering: boolean): void;
  locate(): void;
  /** Clears all sound and returns to the state at the start of playing. */
  forget(): void;
  process(bus: StereoBlock, busSilent: boolean): boolean;
  /** Frees its pooled buffers; it must not be used afterwards. */
  release(): void;
}

/** The chain of a strand, delayed to stay in time with the strand of the highest latency. */
export class RunningStrand<Slot> implements StrandWork {
  /** Highest latency of the strands of its braid, in samples. */
  latest = 0;
  private compensator: LatencyCompensator | null = null;

  constructor(readonly chain: InnerChain<Slot>) {}

  /** Allocates its compensation delay. */
  prepareCompensation(sampleRate: number): void {
    this.compensator ??= new LatencyCompensator(sampleRate);
  }

  /** Jumps to its delay; for the start of playing. */
  resetCompensation(): void {
    if (this.compensator?.silent) this.compensator.reset(this.latest - this.chain.latency);
  }

  forget(): void {
    this.chain.forget();
    this.compensator?.reset(0);
  }

  get silent(): boolean {
    return this.chain.silent && (this.compensator?.silent ?? true);
  }

  process(block: StereoBlock, silent: boolean): boolean {
    const quiet = this.chain.process(block, silent);
    if (!this.compensator) return quiet;
    this.compensator.process(block, block, this.latest - this.chain.latency, !quiet);
    return quiet && this.compensator.silent;
  }
}
