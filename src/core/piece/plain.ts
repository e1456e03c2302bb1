import type { Clip, Slot, Track } from './piece';

/** A track of clips with its pan in the middle and without sends; a name over 120 characters is cut. */
export const plainTrack = (
  id: string,
  name: string,
  clips: readonly Clip[],
  chain: readonly Slot[] = [],
  gain = 1,
): Track => ({
  id,
  name: name.slice(0, 120),
  gain,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  chain: [...chain],
  clips: [...clips],
});

/** A clip that plays a sound from its beginning, without fades; a name over 120 characters is cut. */
export const plainClip = (
  id: string,
  name: string,
  sound: string,
  start: number,
  lengthSeconds: number,
  more: Partial<Clip> = {},
): Clip => ({
  id,
  name: name.slice(0, 120),
  sound,
  start,
  offsetSeconds: 0,
  lengthSeconds,
  gain: 1,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  print: null,
  ...more,
});
