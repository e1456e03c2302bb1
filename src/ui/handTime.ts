let moment: number | null = null;

/** Notes when what is being handled was done, which may be a frame before it is handled. */
export function markHand(event: Event): void {
  moment = event.timeStamp;
  queueMicrotask(() => {
    moment = null;
  });
}

/** The moment, on the page's clock in ms, of the hand's doing that is being handled; else now. */
export const handMoment = (): number => moment ?? performance.now();
