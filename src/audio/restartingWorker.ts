/**
 * A worker that is started when it is first told something, and anew after it broke or could not be fetched: what was
 * asked of it then is never answered.
 */
export class RestartingWorker {
  private worker: Worker | null = null;

  /**
   * @param onMessage is given what it says, as it came
   * @param onBroken is called once it is gone; nothing asked before is answered any more
   */
  constructor(
    private readonly url: string,
    private readonly onMessage: (data: unknown) => void,
    private readonly onBroken: () => void,
  ) {}

  post(message: unknown): void {
    this.worker ??= this.started();
    this.worker.postMessage(message);
  }

  close(): void {
    this.worker?.terminate();
    this.worker = null;
  }

  private started(): Worker {
    const worker = new Worker(this.url, { type: 'module' });
    worker.onmessage = (event: MessageEvent<unknown>) => this.onMessage(event.data);
    worker.onerror = () => {
      this.close();
      this.onBroken();
    };
    return worker;
  }
}
