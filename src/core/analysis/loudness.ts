import { KWeighted } from './kWeighting';

export interface Loudness {
  /** LUFS over the whole, gated; -Infinity when nothing passes the gate. */
  readonly integrated: number;
  /** Loudest 400 ms and 3 s, in LUFS. */
  readonly momentaryMax: number;
  readonly shortTermMax: number;
}

export const lufs = (meanSquare: number): number => -0.691 + 10 * Math.log10(meanSquare);

const HOP_SECONDS = 0.1;

/**
 * Loudness by ITU-R BS.1770-4: 400 ms blocks every 100 ms, absolute gate -70 LUFS, relative gate -10 LU.
 * @param channels one or two channels of equal length; both weigh 1
 */
export function loudness(channels: readonly ArrayLike<number>[], sampleRate: number): Loudness {
  const hop = Math.round(HOP_SECONDS * sampleRate);
  const length = channels[0]?.length ?? 0;
  const hops = Math.floor(length / hop);
  const energy = new Float64Array(hops);
  for (const channel of channels) {
    const weighted = new KWeighted(sampleRate);
    for (let i = 0; i < hops; i += 1) energy[i] = energy[i]! + weighted.energy(channel, i * hop, hop) / hop;
  }
  const blocks = windowMeans(energy, 4);
  const shorts = windowMeans(energy, 30);
  const loud = (value: number): number => (value > 0 ? lufs(value) : -Infinity);
  return {
    integrated: gated(blocks),
    momentaryMax: loud(blocks.reduce((a, b) => Math.max(a, b), 0)),
    shortTermMax: loud(shorts.reduce((a, b) => Math.max(a, b), 0)),
  };
}

function windowMeans(energy: Float64Array, size: number): number[] {
  const means: number[] = [];
  for (let i = 0; i + size <= energy.length; i += 1) {
    let sum = 0;
    for (let k = 0; k < size; k += 1) sum += energy[i + k]!;
    means.push(sum / size);
  }
  return means;
}

function gated(blocks: readonly number[]): number {
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
  const heard = blocks.filter((block) => block > 0 && lufs(block) > -70);
  if (heard.length === 0) return -Infinity;
  const gate = lufs(mean(heard)) - 10;
  const kept = heard.filter((block) => lufs(block) > gate);
  return kept.length > 0 ? lufs(mean(kept)) : -Infinity;
}
