/** Radius of the head and speed of sound, in metres and metres a second. */
export const HEAD_RADIUS = 0.0875;
export const SPEED_OF_SOUND = 343;

/**
 * Interaural time difference in seconds.
 * Source: R. S. Woodworth, "Experimental Psychology" (1938), for a sphere and a source far away.
 * @param lateral angle in radians out of the middle plane, -pi/2 (left) to pi/2 (right)
 */
export const interauralSeconds = (lateral: number): number =>
  (HEAD_RADIUS / SPEED_OF_SOUND) * (lateral + Math.sin(lateral));

/**
 * Seconds before (negative) or after the middle of the head at which an ear hears a source.
 * @param toward lateral angle, positive on that ear's side
 */
export const earSeconds = (toward: number): number =>
  (HEAD_RADIUS / SPEED_OF_SOUND) * (toward > 0 ? -Math.sin(toward) : -toward);

/**
 * High-frequency gain of an ear against the lows, after C. P. Brown and R. O. Duda, "A Structural Model for Binaural
 * Sound Synthesis" (1998): 2 where the ear faces the source, near 0.1 in the deepest shadow.
 */
export function shadowGain(toward: number): number {
  const incidence = Math.PI / 2 - toward;
  return 1.05 + 0.95 * Math.cos((incidence * 180) / 150);
}

/** Where the shadow has reached half its depth, in Hz. */
export const SHADOW_HZ = SPEED_OF_SOUND / (Math.PI * HEAD_RADIUS);

export interface Spot {
  x: number;
  y: number;
}

/**
 * Position of a moving source: x to the right, y ahead, in metres.
 * @param path index of the path's choice  @param turns position on the path  @param corners x and y of each, in turn
 */
export function spotAt(
  out: Spot,
  path: number,
  turns: number,
  direction: number,
  distance: number,
  extent: number,
  corners: Float64Array,
): void {
  if (path === 4) {
    drawnAt(out, turns, corners);
    return;
  }
  if (path === 3) {
    const a = 2 * Math.PI * turns;
    const x = distance * Math.sin(a);
    const y = 0.5 * distance * Math.sin(2 * a);
    const turn = (direction * Math.PI) / 180;
    out.x = x * Math.cos(turn) + y * Math.sin(turn);
    out.y = y * Math.cos(turn) - x * Math.sin(turn);
    return;
  }
  const degrees =
    path === 1 ? direction + 360 * turns : path === 2 ? direction + extent * Math.sin(2 * Math.PI * turns) : direction;
  out.x = distance * Math.sin((degrees * Math.PI) / 180);
  out.y = distance * Math.cos((degrees * Math.PI) / 180);
}

/** A closed curve through the corners (E. Catmull and R. Rom, "A class of local interpolating splines", 1974). */
function drawnAt(out: Spot, turns: number, corners: Float64Array): void {
  const count = corners.length / 2;
  const at = (turns - Math.floor(turns)) * count;
  const first = Math.floor(at);
  const f = at - first;
  out.x = curve(corners, first, f, count, 0);
  out.y = curve(corners, first, f, count, 1);
}

function curve(corners: Float64Array, first: number, f: number, count: number, axis: 0 | 1): number {
  const a = corners[2 * ((first + count - 1) % count) + axis]!;
  const b = corners[2 * (first % count) + axis]!;
  const c = corners[2 * ((first + 1) % count) + axis]!;
  const d = corners[2 * ((first + 2) % count) + axis]!;
  return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
}
