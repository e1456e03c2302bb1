let moment: number | null = null;

/** Records the time of the input event being handled, which may be a frame earlier. */
export function markHand(event: Event): void {
  moment = event.timeStamp;
  queueMicrotask(() => {
    moment = null;
  });
}

/** Time of the input event being handled, on the page's clock in ms; else now. */
export const handMoment = (): number => moment ?? performance.now();
