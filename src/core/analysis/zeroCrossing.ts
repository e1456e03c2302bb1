import type { SoundData } from '../dsp/soundData';

/**
 * The zero crossing near a frame, so that a cut there makes no step: where the sum of all channels changes its sign, or
 * is nearest to 0.
 * @param frame of the wanted cut
 * @param reach maximum distance, in frames
 */
export function crossingNear(channels: SoundData, frame: number, reach: number): number {
  const length = channels[0]?.length ?? 0;
  const at = (i: number): number => channels.reduce((sum, channel) => sum + channel[i]!, 0);
  let best = frame;
  let least = Infinity;
  for (let i = Math.max(1, frame - reach); i <= Math.min(length - 1, frame + reach); i += 1) {
    const [before, now] = [at(i - 1), at(i)];
    // A change of sign is preferred; then the quieter, then the nearer.
    const crosses = before <= 0 !== now <= 0;
    const worth = (crosses ? 0 : 1) + Math.abs(now) + (1e-6 * Math.abs(i - frame)) / Math.max(1, reach);
    if (worth < least) {
      least = worth;
      best = i;
    }
  }
  return best;
}
