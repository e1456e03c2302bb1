interface RecorderScope {
  registerProcessor(name: string, processor: unknown): void;
  readonly AudioWorkletProcessor: new () => { readonly port: MessagePort };
}
const scope = globalThis as unknown as RecorderScope;

/** Posts the input block by block; copies, since the browser reuses its buffers. */
class Recorder extends scope.AudioWorkletProcessor {
  process(inputs: Float32Array[][]): boolean {
    const input = inputs[0];
    if (input && input.length > 0) this.port.postMessage(input.slice(0, 2).map((channel) => channel.slice()));
    return true;
  }
}

scope.registerProcessor('zephiro-recorder', Recorder);
