/** Samples of a sound at the engine's rate: one channel or two. */
export type SoundData = readonly Float32Array[];
