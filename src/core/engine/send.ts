import type { StereoBlock } from '../dsp/blocks';
import { smoothToward } from '../dsp/onePole';
import { SEND_LEVEL } from '../piece/piece';
import { LatencyCompensator } from '../effects/latencyCompensator';
import type { PlanSend } from './plan';
import type { EngineContext } from './engineContext';
import { ParameterSmoother } from './parameterSmoother';

/** What can take a run in: a return. */
export interface Receiver {
  receive(run: StereoBlock, from: number, to: number): void;
  /** Samples by which what it takes in is late. */
  readonly entersLate: number;
  /** Takes in something this late. */
  waitFor(late: number): void;
}

/** A send while it runs. A new one comes up from nothing, one that was taken away fades. */
export class RunningSend {
  readonly to: string;
  readonly values: ParameterSmoother;
  target: Receiver | null = null;
  pre: boolean;
  private now = 0;
  private leaving = false;
  private align: LatencyCompensator | null = null;
  private held: StereoBlock | null = null;

  constructor(
    plan: PlanSend,
    private readonly scene: EngineContext,
    private readonly share: number,
  ) {
    this.to = plan.to;
    this.pre = plan.pre;
    this.values = new ParameterSmoother([SEND_LEVEL], plan.values, scene.sampleRate);
  }

  /** True while anything of it is still heard. */
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

  /** It is gone: what it worked in is free. */
  letGo(): void {
    if (this.held) this.scene.runs.giveBack(this.held);
    this.held = null;
  }

  /** Stands at its level at once; for the start of playing. */
  jump(): void {
    this.values.jump();
    this.now = this.leaving ? 0 : this.values.now[0]!;
  }

  /** Makes ready to be held back. */
  keepStep(): void {
    this.align ??= new LatencyCompensator(this.scene.sampleRate);
    this.held ??= this.scene.runs.take();
  }

  /** Is in step at once; for the start of playing. @param late samples by which what it is given is late */
  realign(late: number): void {
    if (this.align?.silent && this.target) this.align.reset(this.target.entersLate - late);
  }

  /** Loses what it holds back; one that was taken away is gone. */
  forget(): void {
    this.align?.reset(0);
    if (this.leaving) this.now = 0;
  }

  /** True while something that it holds back is still to come. */
  get ringing(): boolean {
    return this.align !== null && !this.align.silent;
  }

  /**
   * Gives a step of sound on.
   * @param open share that the channel lets through
   * @param late samples by which the run is late
   */
  give(run: StereoBlock, open: number, late: number, sounding: boolean): void {
    this.values.step();
    const goal = this.leaving ? 0 : this.values.now[0]! * open;
    const next = smoothToward(this.now, goal, this.share, 1e-6);
    const inStep = this.align ? this.align.process(run, this.held!, this.target!.entersLate - late, sounding) : run;
    this.target!.receive(inStep, this.now, next);
    this.now = next;
  }
}
