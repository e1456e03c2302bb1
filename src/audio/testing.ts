/** Stands in for a worker of the browser: keeps what is posted to it, and responds or fails when a test says so. */
export class FakeWorker {
  static instances: FakeWorker[] = [];
  readonly posted: unknown[] = [];
  terminated = false;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;

  constructor(readonly url: string) {
    FakeWorker.instances.push(this);
  }

  /** The one that was made last. */
  static get last(): FakeWorker {
    return FakeWorker.instances.at(-1)!;
  }

  /** Takes the place of the browser's own for one test. */
  static install(): void {
    FakeWorker.instances = [];
    Object.defineProperty(globalThis, 'Worker', { configurable: true, value: FakeWorker });
  }

  postMessage(message: unknown): void {
    this.posted.push(message);
  }

  terminate(): void {
    this.terminated = true;
  }

  respond(data: unknown): void {
    this.onmessage?.({ data });
  }

  fail(message = ''): void {
    this.onerror?.({ message });
  }
}
