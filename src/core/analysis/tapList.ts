/** One arrival in an impulse response. */
export interface Tap {
  /** Time of its centre of gravity, seconds after the impulse. */
  readonly seconds: number;
  /** Root of its energy in each channel; 1 for an unchanged unit impulse. */
  readonly left: number;
  readonly right: number;
  /** Root-mean-square frequency in Hz: how bright it is. */
  readonly brightnessHz: number;
}

interface Cluster {
  first: number;
  last: number;
}

/**
 * Finds the separate arrivals of a stereo impulse response. Energy is gathered in frames of `frameSeconds`; frames
 * above `floorDb` under the strongest that are next to one another are one arrival, unless the energy dips by more than
 * 12 dB and rises again.
 */
export function tapList(
  left: ArrayLike<number>,
  right: ArrayLike<number>,
  sampleRate: number,
  frameSeconds = 0.004,
  floorDb = -60,
): Tap[] {
  const frame = Math.max(1, Math.round(frameSeconds * sampleRate));
  const count = Math.ceil(left.length / frame);
  const energy = new Float64Array(count);
  for (let i = 0; i < left.length; i += 1) {
    const at = Math.floor(i / frame);
    energy[at] = energy[at]! + left[i]! * left[i]! + right[i]! * right[i]!;
  }
  let strongest = 0;
  for (const value of energy) if (value > strongest) strongest = value;
  if (strongest === 0) return [];
  const floor = strongest * Math.pow(10, floorDb / 10);
  return clusters(energy, floor).map((cluster) =>
    measure(left, right, cluster.first * frame, Math.min(left.length, (cluster.last + 1) * frame), sampleRate),
  );
}

function clusters(energy: Float64Array, floor: number): Cluster[] {
  const found: Cluster[] = [];
  let open: Cluster | null = null;
  let top = 0;
  let dip = Infinity;
  for (let i = 0; i < energy.length; i += 1) {
    const value = energy[i]!;
    if (value < floor) {
      open = null;
      continue;
    }
    const risesAgain: boolean = open !== null && dip < top / 16 && value > dip * 16;
    if (!open || risesAgain) {
      open = { first: i, last: i };
      found.push(open);
      top = value;
      dip = Infinity;
    } else {
      open.last = i;
      if (value > top) {
        top = value;
        dip = Infinity;
      } else if (value < dip) dip = value;
    }
  }
  return found;
}

function measure(left: ArrayLike<number>, right: ArrayLike<number>, from: number, to: number, sampleRate: number): Tap {
  let l = 0;
  let r = 0;
  let moment = 0;
  let slope = 0;
  for (let i = from; i < to; i += 1) {
    const el = left[i]! * left[i]!;
    const er = right[i]! * right[i]!;
    l += el;
    r += er;
    moment += (el + er) * i;
    const dl = left[i]! - (i > 0 ? left[i - 1]! : 0);
    const dr = right[i]! - (i > 0 ? right[i - 1]! : 0);
    slope += dl * dl + dr * dr;
  }
  const total = l + r;
  const chord = Math.min(1, Math.sqrt(slope / total) / 2);
  return {
    seconds: moment / total / sampleRate,
    left: Math.sqrt(l),
    right: Math.sqrt(r),
    brightnessHz: (sampleRate / Math.PI) * Math.asin(chord),
  };
}

/** Arrivals nearer than `apart` seconds become one, at their common centre of gravity. */
export function mergeTaps(taps: readonly Tap[], apart: number): Tap[] {
  const merged: Tap[] = [];
  for (const tap of taps) {
    const last = merged[merged.length - 1];
    if (last && tap.seconds - last.seconds < apart) merged[merged.length - 1] = mergedTap(last, tap);
    else merged.push(tap);
  }
  return merged;
}

function mergedTap(a: Tap, b: Tap): Tap {
  const ea = a.left * a.left + a.right * a.right;
  const eb = b.left * b.left + b.right * b.right;
  const mean = (x: number, y: number): number => (x * ea + y * eb) / (ea + eb);
  return {
    seconds: mean(a.seconds, b.seconds),
    left: Math.hypot(a.left, b.left),
    right: Math.hypot(a.right, b.right),
    brightnessHz: mean(a.brightnessHz, b.brightnessHz),
  };
}
