/** A decoded sound: one Float32Array a channel, all of one length. */
export interface Audio {
  readonly sampleRate: number;
  readonly channels: Float32Array[];
}

/** A file that is not a usable sound; the message says what is wrong and what to do. */
export class UnreadableSound extends Error {}
