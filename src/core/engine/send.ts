import type { StereoRun } from '../effects/define';
import { arrive } from '../dsp/onePole';
import { SEND_LEVEL } from '../piece/piece';
import type { PlanSend } from './plan';
import { ValueRow } from './valueRow';

/** What can take a run in: a return. */
export interface Receiver {
  receive(run: StereoRun, from: number, to: number): void;
}

/** A send while it runs. A new one comes up from nothing, one that was taken away fades. */
export class RunningSend {
  readonly to: string;
  readonly values: ValueRow;
  target: Receiver | null = null;
  pre: boolean;
  private now = 0;
  private leaving = false;

  constructor(plan: PlanSend, sampleRate: number, private readonly share: number) {
    this.to = plan.to;
    this.pre = plan.pre;
    this.values = new ValueRow([SEND_LEVEL], plan.values, sampleRate);
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

  /** Stands at its level at once; for the start of playing. */
  jump(): void {
    this.values.jump();
    this.now = this.leaving ? 0 : this.values.now[0]!;
  }

  /** Gives a step of sound on. @param open share that the channel lets through */
  give(run: StereoRun, open: number): void {
    this.values.step();
    const goal = this.leaving ? 0 : this.values.now[0]! * open;
    const next = arrive(this.now, goal, this.share, 1e-6);
    this.target!.receive(run, this.now, next);
    this.now = next;
  }
}
