/** What of the main output is listened to; nothing of it enters a print or a file. */
export const MONITORS = ['stereo', 'mono', 'left', 'right', 'swapped'] as const;
export type Monitor = (typeof MONITORS)[number];

/** Gains from the two sides of the output to the two of the speakers: left to left, left to right, right to left, right to right. */
export const MONITOR_GAINS: Readonly<Record<Monitor, readonly [number, number, number, number]>> = {
  stereo: [1, 0, 0, 1],
  mono: [0.5, 0.5, 0.5, 0.5],
  left: [1, 1, 0, 0],
  right: [0, 0, 1, 1],
  swapped: [0, 1, 1, 0],
};
