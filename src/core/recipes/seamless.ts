import type { SoundData } from '../dsp/soundData';

/** Default search range: the loop may end this much earlier, where its ends match best. */
const REACH_SECONDS = 0.1;
const STRIDE = 5;

/**
 * A seamless loop: its last part is crossfaded into its first. Where both are correlated the gains add up to one, where
 * not their powers do, so that the level is constant either way.
 * @param overlap samples of the crossfade, less than half the length
 * @param reachSeconds how much shorter the loop may be for a better seam; 0 for exactly `length - overlap`
 * @returns channels of `length - overlap`, or up to `reachSeconds` less
 */
export function seamless(
  channels: SoundData,
  overlap: number,
  sampleRate: number,
  reachSeconds = REACH_SECONDS,
): Float32Array[] {
  const length = channels[0]!.length;
  const laid = Math.max(1, Math.min(overlap, Math.floor(length / 2) - 1));
  const turn = bestLength(channels, length - laid, Math.min(Math.round(reachSeconds * sampleRate), laid - 1), laid);
  const alike = Math.max(0, correlation(channels, turn, laid));
  const gains = Float64Array.from({ length: laid }, (_, i) => {
    const t = (i + 0.5) / laid;
    const [s, c] = [Math.sin((Math.PI * t) / 2), Math.cos((Math.PI * t) / 2)];
    // Two sounds with this correlation at gains c and s have the power c^2 + s^2 + 2 c s correlation.
    return 1 / Math.sqrt(1 + 2 * s * c * alike);
  });
  return channels.map((channel) =>
    Float32Array.from({ length: turn }, (_, i) => {
      if (i >= laid) return channel[i]!;
      const t = (i + 0.5) / laid;
      return gains[i]! * (Math.sin((Math.PI * t) / 2) * channel[i]! + Math.cos((Math.PI * t) / 2) * channel[turn + i]!);
    }),
  );
}

/** The length near the wanted one at which the crossfaded parts correlate best. */
function bestLength(channels: SoundData, wanted: number, reach: number, laid: number): number {
  let best = wanted;
  let most = -Infinity;
  for (let turn = Math.max(laid, wanted - reach); turn <= wanted; turn += 1) {
    const alike = correlation(channels, turn, Math.min(laid, 24_000));
    if (alike <= most) continue;
    most = alike;
    best = turn;
  }
  return best;
}

/** Correlation of the beginning with the part `turn` later, -1 to 1. */
function correlation(channels: SoundData, turn: number, length: number): number {
  let [product, a, b] = [0, 1e-12, 1e-12];
  for (const channel of channels) {
    for (let i = 0; i < length && turn + i < channel.length; i += STRIDE) {
      product += channel[i]! * channel[turn + i]!;
      a += channel[i]! * channel[i]!;
      b += channel[turn + i]! * channel[turn + i]!;
    }
  }
  return product / Math.sqrt(a * b);
}
