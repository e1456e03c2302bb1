/**
 * Times every block of whatever processor is registered after it, on the audio thread itself: this scope has no clock
 * but Temporal's, which is good to 5 us.
 */
interface Scope {
  registerProcessor(name: string, processor: Processor): void;
  readonly AudioWorkletProcessor: Processor;
  readonly Temporal: { readonly Now: { instant(): { readonly epochNanoseconds: bigint } } };
}
interface Timed {
  process(inputs: unknown, outputs: Float32Array[][]): boolean;
}
type Processor = new (options: { processorOptions: { shares: SharedArrayBuffer } }) => Timed;
const scope = globalThis as unknown as Scope;
const BLOCK_NANOSECONDS = (128 / 48_000) * 1e9;
const registerProcessor = scope.registerProcessor.bind(scope);
const now = (): bigint => scope.Temporal.Now.instant().epochNanoseconds;

/** @param name under which a processor whose blocks are timed is known */
scope.registerProcessor = (name, Inner) => {
  registerProcessor(
    name,
    class extends Inner {
      /** How many blocks have been timed (the page sets it back), then each block's share of its time. */
      private readonly shares: Float64Array;

      constructor(options: { processorOptions: { shares: SharedArrayBuffer } }) {
        super(options);
        this.shares = new Float64Array(options.processorOptions.shares);
      }

      override process(inputs: unknown, outputs: Float32Array[][]): boolean {
        const began = now();
        const goesOn = super.process(inputs, outputs);
        const { shares } = this;
        const next = shares[0]! + 1;
        if (next < shares.length) {
          shares[next] = Number(now() - began) / BLOCK_NANOSECONDS;
          shares[0] = next;
        }
        return goesOn;
      }
    },
  );
};

/** Nothing but arithmetic, a few hundredths of the time: what of the figures is the machine's own. */
scope.registerProcessor(
  'arithmetic',
  class extends scope.AudioWorkletProcessor {
    private x = 0.1;

    override process(): boolean {
      for (let i = 0; i < 10_000; i += 1) this.x = 3.7 * this.x * (1 - this.x);
      return this.x <= 1;
    }
  },
);
