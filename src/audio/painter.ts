import type { EffectPicture } from '../core/effects/define';
import type { ParamValues, ValueContext } from '../core/params/param';

interface Order {
  readonly effect: string;
  readonly values: ParamValues;
  readonly context: ValueContext;
}

/** Asks the picture worker for what an effect does; while one picture is being made only the newest wish waits. */
export class Painter {
  private readonly worker = new Worker('/rt/picture.worker.js', { type: 'module' });
  private busy = false;
  private next: Order | null = null;
  private ticket = 0;

  constructor(private readonly onPicture: (picture: EffectPicture) => void) {
    this.worker.onmessage = (event: MessageEvent<{ ticket: number; picture: EffectPicture }>) => {
      this.busy = false;
      this.onPicture(event.data.picture);
      if (this.next) this.send(this.next);
    };
  }

  paint(order: Order): void {
    if (this.busy) this.next = order;
    else this.send(order);
  }

  close(): void {
    this.worker.terminate();
  }

  private send(order: Order): void {
    this.busy = true;
    this.next = null;
    this.ticket += 1;
    this.worker.postMessage({ ticket: this.ticket, ...order });
  }
}
