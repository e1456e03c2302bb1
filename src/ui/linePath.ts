/** A line through points in pixels as the `d` of an SVG path, written to a tenth of a pixel. */
export const linePath = (points: readonly { readonly x: number; readonly y: number }[]): string =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
