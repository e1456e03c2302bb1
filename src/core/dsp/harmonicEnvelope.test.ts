import fc from 'fast-check';
import { between } from '../testing';
import { HarmonicEnvelope } from './harmonicEnvelope';

const BINS = 1025;

/** Spectrum of tones under a window whose main lobe is a parabola in logarithms, two bins to each side. */
function spectrumOf(spacing: number, heights: readonly number[]): Float64Array {
  return Float64Array.from({ length: BINS }, (_, k) => {
    const n = Math.max(1, Math.min(heights.length, Math.round(k / spacing)));
    const away = k - n * spacing;
    return heights[n - 1]! - Math.min(12, 0.8 * away * away);
  });
}

test('it goes through every harmonic, and swings beyond two that are neighbours by no more than a top between them asks for', () => {
  fc.assert(
    fc.property(between(5, 25), fc.array(between(-4, 0), { minLength: 12, maxLength: 30 }), (spacing, steps) => {
      // A throat changes by no more than 4 dB or so from tone to tone: a deep gap between two is a missed pitch.
      const heights = steps.map((_, n) => 0.3 * steps[n]!);
      const envelope = new Float64Array(BINS);
      expect(new HarmonicEnvelope(BINS).find(spectrumOf(spacing, heights), spacing, envelope)).toBe(true);
      // Behind the last there is nothing.
      heights.slice(0, -1).forEach((height, n) => {
        const at = (n + 1) * spacing;
        const near = [envelope[Math.floor(at)]!, envelope[Math.ceil(at)]!];
        const most = Math.max(height, heights[n - 1] ?? height, heights[n + 1] ?? height);
        const least = Math.min(height, heights[n - 1] ?? height, heights[n + 1] ?? height);
        const swing = 0.15 * (most - least) + 0.01;
        for (const level of near) {
          expect(level).toBeLessThan(most + swing);
          expect(level).toBeGreaterThan(least - swing);
        }
      });
    }),
    { numRuns: 40 },
  );
});

test('a pitch that was taken an octave too low makes no gaps', () => {
  const envelope = new Float64Array(BINS);
  const heights = Array.from({ length: 30 }, () => 0);
  expect(new HarmonicEnvelope(BINS).find(spectrumOf(20, heights), 10, envelope)).toBe(true);
  expect(Math.min(...envelope.subarray(20, 580))).toBeGreaterThan(-0.05);
});

test('nothing is told of a spectrum with fewer than four tones', () => {
  expect(new HarmonicEnvelope(64).find(new Float64Array(64).fill(-5), 25, new Float64Array(64))).toBe(false);
});
