/** Echoes of the pinna; one of the shoulder follows them. */
const PINNA_ECHOES = 5;
export const ECHO_COUNT = PINNA_ECHOES + 1;
const PINNA_RATE = 44_100;
const PINNA_GAINS = [0.5, -1, 0.5, -0.25, 0.25] as const;
/** Delays in samples at 44.1 kHz: amplitude over elevation, mean, and angular factor of each echo. */
const SWINGS = [1, 5, 5, 5, 5] as const;
const MIDDLES = [2, 4, 7, 11, 13] as const;
const PACES = [1, 0.5, 0.5, 0.5, 0.5] as const;
const SHOULDER_GAIN = 0.3;
const SHOULDER_SECONDS = 0.0012;
/** Longest of all, in seconds. */
export const LONGEST_ECHO_SECONDS = 0.0013;

/** Delays of the echoes in samples, and their gains. */
export interface PinnaEchoes {
  readonly delays: Float64Array;
  readonly gains: Float64Array;
}

export const makePinnaEchoes = (): PinnaEchoes => ({
  delays: new Float64Array(ECHO_COUNT),
  gains: new Float64Array(ECHO_COUNT),
});

/**
 * Delays and gains of the echoes of pinna and shoulder for a direction: cues for elevation and for front and back.
 * Source: C. P. Brown and R. O. Duda, "A Structural Model for Binaural Sound Synthesis" (1998); the shoulder's falls
 * silent below the horizon, after V. R. Algazi, R. O. Duda, R. Duraiswami and others, "Approximating the head-related
 * transfer function using simple geometric models of the head and torso" (2002).
 * @param toward angle out of the middle plane in radians, positive on the ear's side
 * @param elevation angle round the axis through the ears: 0 ahead, pi/2 above, pi behind, -pi/2 below
 * @param amount 0-1
 */
export function updatePinnaEchoes(
  echo: PinnaEchoes,
  toward: number,
  elevation: number,
  amount: number,
  sampleRate: number,
): void {
  const { delays, gains } = echo;
  const nearness = Math.cos(0.5 * toward);
  for (let k = 0; k < PINNA_ECHOES; k += 1) {
    const swing = SWINGS[k]! * nearness * Math.sin(PACES[k]! * (0.5 * Math.PI - elevation));
    delays[k] = ((swing + MIDDLES[k]!) * sampleRate) / PINNA_RATE;
    gains[k] = amount * PINNA_GAINS[k]!;
  }
  const lateral = (toward * 180) / Math.PI;
  const degrees = (elevation * 180) / Math.PI;
  const away = ((degrees - 80) * 180) / (180 + Math.max(-90, lateral));
  const share = (180 - lateral) / 180;
  const seconds = SHOULDER_SECONDS * share * Math.max(0, 1 - 0.00004 * away * away);
  delays[PINNA_ECHOES] = Math.min(LONGEST_ECHO_SECONDS, seconds) * sampleRate;
  // Full from a quarter of a right angle above the horizon on, on either side of the top.
  const height = Math.sin(elevation) / 0.4;
  gains[PINNA_ECHOES] = amount * SHOULDER_GAIN * (height < 0 ? 0 : height > 1 ? 1 : height);
}
