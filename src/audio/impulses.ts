import type { PreparedImpulse } from '../core/dsp/convolution';
import { planSlotsIn, type Plan } from '../core/engine/plan';
import type { ImpulseNeed } from '../core/impulses/make';
import { fromImpulses, type ToImpulses } from './protocol';
import { RestartingWorker } from './restartingWorker';

type Sounds = ReadonlyMap<string, { readonly channels: readonly Float32Array[] }>;

/** Prepares the impulses of a plan in a worker, one at a time; a request that is no longer in the plan is dropped. */
export class ImpulseMaker {
  readonly made = new Map<string, PreparedImpulse>();
  private needs: readonly ImpulseNeed[] = [];
  private working: string | null = null;
  private readonly worker = new RestartingWorker(
    '/rt/impulse.worker.js',
    (data) => {
      const { key, impulse } = fromImpulses.parse(data);
      this.working = null;
      if (impulse && this.needs.some((need) => need.key === key)) {
        this.made.set(key, impulse);
        this.onMade(key, impulse);
      }
      this.next();
    },
    () => {
      this.working = null;
    },
  );

  constructor(
    private readonly sounds: Sounds,
    private readonly onMade: (key: string, impulse: PreparedImpulse) => void,
  ) {}

  want(plan: Plan): void {
    this.needs = plan.channels.flatMap((channel) =>
      planSlotsIn(channel.slots).flatMap(({ impulse }) => (impulse ? [impulse] : [])),
    );
    for (const key of this.made.keys()) if (!this.needs.some((need) => need.key === key)) this.made.delete(key);
    this.next();
  }

  /** Starts the next request; also called when a sound has been loaded. */
  next(): void {
    if (this.working) return;
    const need = this.needs.find(
      ({ key, order }) => !this.made.has(key) && (order.source.kind !== 'sound' || this.sounds.has(order.source.hash)),
    );
    if (!need) return;
    this.working = need.key;
    const { source } = need.order;
    const sound =
      source.kind === 'sound' ? { hash: source.hash, channels: [...this.sounds.get(source.hash)!.channels] } : null;
    const message: ToImpulses = { key: need.key, order: need.order, sound };
    this.worker.post(message);
  }

  close(): void {
    this.worker.close();
  }
}
