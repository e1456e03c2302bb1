import type { Clip, Track } from '../../core/piece/piece';

/** A plain track that holds what a recipe made. */
export const trackOf = (id: string, name: string, clips: Clip[]): Track => ({ id, name, gain: 1, pan: 0, mute: false, solo: false, chain: [], sends: [], clips });
