import { decayCurve, decaySeconds, octaveBand } from '../analysis/decay';
import type { DecayPicture } from './pictures';

const FRAMES = 120;
const BANDS = { low: 250, middle: 1000, high: 4000 } as const;

/** Measures an impulse; for any effect that rings out. */
export function decayPictureOf(
  left: Float64Array,
  right: Float64Array,
  sampleRate: number,
  known: Pick<DecayPicture, 'preDelaySeconds' | 'setSeconds' | 'early' | 'handles'>,
): DecayPicture {
  const frame = Math.max(1, Math.floor(left.length / FRAMES));
  const curve = (hz: number): number[] => {
    const sides = [octaveBand(left, hz, sampleRate), octaveBand(right, hz, sampleRate)];
    return Array.from(decayCurve(sides, frame), (db) => Math.max(-90, Math.round(db * 10) / 10));
  };
  return {
    kind: 'decay',
    spanSeconds: left.length / sampleRate,
    frameSeconds: frame / sampleRate,
    low: curve(BANDS.low),
    middle: curve(BANDS.middle),
    high: curve(BANDS.high),
    measuredSeconds: measuredDecay(left, right, sampleRate),
    ...known,
  };
}

/**
 * Seconds for 60 dB at 1 kHz by backward integration, over 30 dB or, where it does not fall so far, over 15; null when
 * it falls less.
 */
export function measuredDecay(left: Float64Array, right: Float64Array, sampleRate: number): number | null {
  const middle = [octaveBand(left, BANDS.middle, sampleRate), octaveBand(right, BANDS.middle, sampleRate)];
  const t30 = decaySeconds(middle, sampleRate);
  const measured = Number.isNaN(t30) ? decaySeconds(middle, sampleRate, -5, -20) : t30;
  return Number.isNaN(measured) ? null : measured;
}
