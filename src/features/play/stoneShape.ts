import { makeRandom } from '../../core/dsp/random';

const CORNERS = 7;
const PER_CORNER = 12;

type Point = readonly [x: number, y: number];

/** Points around a stone in a box of 100 by 100, clockwise from its right: no two places have the same. */
export function stoneOutline(index: number): readonly Point[] {
  const random = makeRandom(7919 * (index + 1));
  const corners = Array.from({ length: CORNERS }, (_, i): Point => {
    const angle = (2 * Math.PI * (i + 0.35 * (random() - 0.5))) / CORNERS;
    const reach = 42 + 7 * random();
    // Wider than high.
    const flat = (x: number): number => Math.sign(x) * Math.pow(Math.abs(x), 0.75);
    return [50 + reach * flat(Math.cos(angle)), 50 + reach * flat(Math.sin(angle))];
  });
  const corner = (i: number): Point => corners[(i + CORNERS) % CORNERS]!;
  return corners.flatMap((_, i) =>
    Array.from({ length: PER_CORNER }, (__, k): Point => {
      const t = k / PER_CORNER;
      const along = (axis: 0 | 1): number => {
        const at = (step: number): number => corner(i + step)[axis];
        return Math.max(1, Math.min(99, catmullRom(at(-1), at(0), at(1), at(2), t)));
      };
      return [along(0), along(1)];
    }),
  );
}

/** Between `b` and `c` on a smooth curve through four values. Source: Catmull and Rom (1974). */
const catmullRom = (a: number, b: number, c: number, d: number, t: number): number =>
  0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - 3 * c + d - a) * t * t * t);

/** A line through points of an outline; all of them as a closed one. @param share of the way round, 0-1 */
export function outlinePath(points: readonly Point[], share = 1): string {
  const count = Math.round(share * points.length);
  if (count < 2) return '';
  const line = points.slice(0, count).map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`);
  return `M${line.join('L')}${share === 1 ? 'Z' : ''}`;
}
