/** Metres, from a corner: along the width, the depth and the height. */
export type Point = readonly [number, number, number];

export const SPEED_OF_SOUND = 343;

/** One path from source to listener, by a mirror image. */
export interface Image {
  /** Metres from the image to the listener. */
  readonly distance: number;
  /** Position of the image relative to the listener, in metres. */
  readonly toward: Point;
  /** Number of reflections at each wall: left, right, front, back, floor, ceiling. */
  readonly bounces: readonly [number, number, number, number, number, number];
}

/**
 * Every mirror image of a source in a shoebox up to an order, nearest first; order 0 is the source itself.
 * Source: J. B. Allen and D. A. Berkley, "Image method for efficiently simulating small-room acoustics" (1979).
 */
export function imageSources(box: Point, source: Point, listener: Point, order: number): Image[] {
  const images: Image[] = [];
  for (let x = -order; x <= order; x += 1) {
    for (let y = -(order - Math.abs(x)); y <= order - Math.abs(x); y += 1) {
      const left = order - Math.abs(x) - Math.abs(y);
      for (let z = -left; z <= left; z += 1) images.push(image(box, source, listener, [x, y, z]));
    }
  }
  return images.sort((a, b) => a.distance - b.distance);
}

/** The image in the mirrored room `cell` rooms away along each axis. */
function image(box: Point, source: Point, listener: Point, cell: Point): Image {
  const along = (axis: 0 | 1 | 2): number => {
    const n = cell[axis];
    const inside = n % 2 === 0 ? source[axis] : box[axis] - source[axis];
    return n * box[axis] + inside - listener[axis];
  };
  const toward: Point = [along(0), along(1), along(2)];
  const met = (axis: 0 | 1 | 2): [number, number] => {
    const n = Math.abs(cell[axis]);
    return cell[axis] > 0 ? [Math.floor(n / 2), Math.ceil(n / 2)] : [Math.ceil(n / 2), Math.floor(n / 2)];
  };
  return { distance: Math.hypot(...toward), toward, bounces: [...met(0), ...met(1), ...met(2)] };
}
