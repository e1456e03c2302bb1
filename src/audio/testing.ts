/** What stands in for a worker of the browser: keeps what it is told, and says what a test lets it say. */
export class FakeWorker {
  static made: FakeWorker[] = [];
  readonly told: unknown[] = [];
  ended = false;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;

  constructor(readonly url: string) {
    FakeWorker.made.push(this);
  }

  /** The one that was made last. */
  static get last(): FakeWorker {
    return FakeWorker.made.at(-1)!;
  }

  /** Takes the place of the browser's own for one test. */
  static install(): void {
    FakeWorker.made = [];
    Object.defineProperty(globalThis, 'Worker', { configurable: true, value: FakeWorker });
  }

  postMessage(message: unknown): void {
    this.told.push(message);
  }

  terminate(): void {
    this.ended = true;
  }

  says(data: unknown): void {
    this.onmessage?.({ data });
  }

  breaks(message = ''): void {
    this.onerror?.({ message });
  }
}
