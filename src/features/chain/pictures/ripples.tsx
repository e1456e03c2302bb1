import { G, Path } from 'react-native-svg';
import type { Tap } from '../../../core/analysis/tapList';
import type { Tokens } from '../../../ui/tokens';

/** Height of a level: 48 dB between the waterline and the top. */
export const heightOf = (level: number): number => Math.max(0, 1 + (20 * Math.log10(Math.max(level, 1e-5))) / 48);
export const levelAt = (height: number): number => Math.pow(10, ((Math.min(1, Math.max(0, height)) - 1) * 48) / 20);

/** A ripple spreads until it would meet its neighbours, and never past a third of the ruler's look. */
export function rippleWidth(taps: readonly Tap[], i: number, x: (seconds: number) => number): number {
  const here = x(taps[i]!.seconds);
  const before = i > 0 ? here - x(taps[i - 1]!.seconds) : here - x(0);
  return Math.max(3, Math.min(26, before * 0.52));
}

interface RippleProps {
  readonly tap: Tap;
  readonly x: number;
  readonly middle: number;
  readonly half: number;
  readonly wide: number;
  readonly tokens: Tokens;
}

const crestPath = (x: number, base: number, rise: number, wide: number): string =>
  `M${x - wide} ${base}C${x - wide * 0.45} ${base} ${x - wide * 0.45} ${base - rise} ${x} ${base - rise}C${x + wide * 0.45} ${base - rise} ${x + wide * 0.45} ${base} ${x + wide} ${base}Z`;

/** One repeat: left above the waterline, right below, more rings and deeper ink for darker sound. */
export function Ripple({ tap, x, middle, half, wide, tokens }: RippleProps) {
  const bright = Math.min(1, Math.max(0, Math.log2(Math.max(tap.brightnessHz, 125) / 125) / 5.6));
  const rings = bright > 0.8 ? [1] : bright > 0.62 ? [1, 0.66] : [1, 0.72, 0.44];
  const sides = [half * heightOf(tap.left), -half * heightOf(tap.right)];
  return (
    <G>
      {sides.flatMap((rise, side) =>
        Math.abs(rise) < 1
          ? []
          : rings.map((ring) => (
              <Path
                key={`${side}-${ring}`}
                d={crestPath(x, middle, rise * ring, wide * (0.35 + 0.65 * ring))}
                fill={ring === 1 ? tokens.seaSoft : 'none'}
                fillOpacity={0.95 - 0.45 * bright}
                stroke={tokens.sea}
                strokeWidth={ring === 1 ? 1.8 : 1}
                strokeOpacity={1 - 0.35 * bright}
              />
            )),
      )}
    </G>
  );
}
