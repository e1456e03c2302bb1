import { addNoise, addPartial, canvas, finish, hump, SOUND_RATE } from './tools';

/** Drops a second where it rains hardest. */
const MOST_DROPS = 26;
/** Peaks of rain that hardly falls, and of the hardest. */
const QUIETEST = 0.08;
const LOUDEST = 0.34;
/** Panes ring at these, in Hz. */
const PANES_HZ = [1870, 2310, 2790, 3360, 4120];

/**
 * Rain on a glass roof: a hiss that swells and thins, and drops on panes of different sizes to all sides.
 * @param hard how hard it rains, 0-1
 */
export function rain(seconds: number, hard: number, random: () => number): Float32Array[] {
  const sides = [canvas(seconds), canvas(seconds)] as const;
  for (const side of sides) hiss(side, hard, random);
  let at = 0;
  while (at < seconds - 0.3) {
    drop(sides, at, hard, random);
    at += (0.3 + 1.4 * random()) / (1 + MOST_DROPS * hard);
  }
  return finish(sides, QUIETEST + (LOUDEST - QUIETEST) * hard);
}

function hiss(out: Float32Array, hard: number, random: () => number): void {
  let [low, high] = [0, 0];
  for (let i = 0; i < out.length; i += 1) {
    const noise = random() * 2 - 1;
    high += (noise - high) * 0.62;
    low += (high - low) * 0.09;
    const edge = Math.min(1, i / SOUND_RATE, (out.length - i) / SOUND_RATE);
    const gust = 0.7 + 0.3 * hump(i / SOUND_RATE / 7.3);
    out[i] = (high - low) * 0.09 * hard * gust * edge;
  }
}

function drop(sides: readonly [Float32Array, Float32Array], at: number, hard: number, random: () => number): void {
  const hz = PANES_HZ[Math.floor(random() * PANES_HZ.length)]! * (0.94 + 0.12 * random());
  const size = (0.02 + 0.12 * random() * random()) * (0.4 + 0.6 * hard);
  const place = random();
  sides.forEach((side, i) => {
    const level = size * (i === 0 ? 1 - place : place);
    addPartial(side, at, hz, level, 0.012 + 0.03 * random());
    addPartial(side, at + 0.001, hz * 0.43, 0.5 * level, 0.02);
    addNoise(side, random, at, 0.6 * level, 0.004, 2000, 9000);
  });
}
