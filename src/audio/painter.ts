import type { EffectPicture } from '../core/effects/pictures';
import type { ParamValues, ValueContext } from '../core/params/param';
import { fromPainter } from './protocol';
import { RestartingWorker } from './restartingWorker';

export interface PictureOrder {
  readonly effect: string;
  readonly values: ParamValues;
  readonly context: ValueContext;
  readonly own?: readonly Float32Array[];
}

/**
 * Requests pictures of effects from the picture worker, which all views share. A view that asks again before its turn
 * has its older request dropped.
 */
export class Painter {
  private readonly waiting = new Map<string, { order: PictureOrder; onPicture: (picture: EffectPicture) => void }>();
  private working: ((picture: EffectPicture) => void) | null = null;
  private readonly worker = new RestartingWorker(
    '/rt/picture.worker.js',
    (data) => {
      const onPicture = this.working;
      this.working = null;
      onPicture?.(fromPainter.parse(data).picture);
      this.next();
    },
    () => {
      this.working = null;
      this.waiting.clear();
    },
  );

  /** @param who the view; each has one request at a time */
  paint(who: string, order: PictureOrder, onPicture: (picture: EffectPicture) => void): void {
    this.waiting.set(who, { order, onPicture });
    if (!this.working) this.next();
  }

  forget(who: string): void {
    this.waiting.delete(who);
  }

  private next(): void {
    const [first] = this.waiting;
    if (!first) return;
    const [who, { order, onPicture }] = first;
    this.waiting.delete(who);
    this.working = onPicture;
    this.worker.post(order);
  }
}

let shared: Painter | null = null;

export function painter(): Painter {
  shared ??= new Painter();
  return shared;
}
