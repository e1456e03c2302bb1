import type { StereoBlock } from '../dsp/blocks';
import type { StrandWork } from '../effects/define';
import { LatencyCompensator } from '../effects/latencyCompensator';
import type { PlanSlot } from './plan';

/** A chain that lies within an effect. */
export interface InnerChain<Slot> {
  /** Its effects and those within them, in the order of the plan. */
  readonly every: Slot[];
  readonly silent: boolean;
  /** Samples by which it is late. */
  readonly latency: number;
  adopt(plans: readonly PlanSlot[], entering: boolean): void;
  locate(): void;
  /** Loses all sound, and stands as at the start of playing. */
  forget(): void;
  process(bus: StereoBlock, busSilent: boolean): boolean;
  /** Returns what it borrowed; it must not be used afterwards. */
  release(): void;
}

/** The chain of a strand, held back to keep step with the latest strand beside it. */
export class RunningStrand<Slot> implements StrandWork {
  /** Samples by which the latest strand of its braid is late. */
  latest = 0;
  private compensator: LatencyCompensator | null = null;

  constructor(readonly chain: InnerChain<Slot>) {}

  /** Makes ready to be held back. */
  prepareCompensation(sampleRate: number): void {
    this.compensator ??= new LatencyCompensator(sampleRate);
  }

  /** Is in step at once; for the start of playing. */
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

  process(run: StereoBlock, silent: boolean): boolean {
    const quiet = this.chain.process(run, silent);
    if (!this.compensator) return quiet;
    this.compensator.process(run, run, this.latest - this.chain.latency, !quiet);
    return quiet && this.compensator.silent;
  }
}
