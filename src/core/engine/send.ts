import type { StereoRun } from '../effects/define';
import { arrive } from '../dsp/onePole';
import { SEND_LEVEL } from '../piece/piece';
import { Align } from '../effects/align';
import type { PlanSend } from './plan';
import type { Scene } from './scene';
import { ValueRow } from './valueRow';

/** What can take a run in: a return. */
export interface Receiver {
  receive(run: StereoRun, from: number, to: number): void;
  /** Samples by which what it takes in is late. */
  readonly entersLate: number;
  /** Takes in something this late. */
  waitFor(late: number): void;
}

/** A send while it runs. A new one comes up from nothing, one that was taken away fades. */
export class RunningSend {
  readonly to: string;
  readonly values: ValueRow;
  target: Receiver | null = null;
  pre: boolean;
  private now = 0;
  private leaving = false;
  private align: Align | null = null;
  private held: StereoRun | null = null;

  constructor(
    plan: PlanSend,
    private readonly scene: Scene,
    private readonly share: number,
  ) {
    this.to = plan.to;
    this.pre = plan.pre;
    this.values = new ValueRow([SEND_LEVEL], plan.values, scene.sampleRate);
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
    this.align ??= new Align(this.scene.sampleRate);
    this.held ??= this.scene.runs.take();
  }

  /** Is in step at once; for the start of playing. @param late samples by which what it is given is late */
  realign(late: number): void {
    if (this.align?.silent && this.target) this.align.jump(this.target.entersLate - late);
  }

  /** Loses what it holds back; one that was taken away is gone. */
  forget(): void {
    this.align?.jump(0);
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
  give(run: StereoRun, open: number, late: number, sounding: boolean): void {
    this.values.step();
    const goal = this.leaving ? 0 : this.values.now[0]! * open;
    const next = arrive(this.now, goal, this.share, 1e-6);
    const inStep = this.align ? this.align.process(run, this.held!, this.target!.entersLate - late, sounding) : run;
    this.target!.receive(inStep, this.now, next);
    this.now = next;
  }
}
