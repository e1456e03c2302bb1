import { makeRandom } from '../dsp/random';
import type { Impulse, Room } from './room';
import { roomImpulse } from './room';

interface LibraryImpulse {
  readonly id: string;
  readonly name: string;
  make(sampleRate: number): Impulse;
}

const room = (id: string, name: string, described: Room, start: number): LibraryImpulse => ({
  id,
  name,
  make: (sampleRate) => roomImpulse(described, sampleRate, start),
});

const at = (
  box: Room['box'],
  walls: Room['walls'],
  scattering: number,
  source: Room['source'] = [0.31, 0.22, 0.5],
  listener: Room['listener'] = [0.58, 0.71, 0.45],
): Room => ({
  box,
  walls,
  scattering,
  source: [source[0] * box[0], source[1] * box[1], source[2] * box[2]],
  listener: [listener[0] * box[0], listener[1] * box[1], listener[2] * box[2]],
});

const SECONDS_MAX = 7;

type Wave = (seconds: number, random: () => number, side: 0 | 1) => number;

/** A sound of its own as an impulse: a wave for each channel, with different random sequences. */
const made = (
  id: string,
  name: string,
  seconds: number,
  start: number,
  wave: (sampleRate: number, side: 0 | 1) => Wave,
): LibraryImpulse => ({
  id,
  name,
  make: (sampleRate) => {
    const length = Math.round(Math.min(SECONDS_MAX, seconds) * sampleRate);
    const side = (which: 0 | 1): Float32Array => {
      const random = makeRandom(start + which);
      const value = wave(sampleRate, which);
      return Float32Array.from({ length }, (_, i) => value(i / sampleRate, random, which));
    };
    return { left: side(0), right: side(1) };
  },
});

/** Partials of a struck body, each with its own decay: shorter the higher. */
function struck(
  hz: readonly number[],
  decay: number,
  tilt: number,
  start: number,
): (sampleRate: number, side: 0 | 1) => Wave {
  return (sampleRate, side) => {
    const random = makeRandom(start + 7 * side);
    const partials = hz
      .filter((f) => f < 0.45 * sampleRate)
      .map((f) => ({
        turns: f * (1 + 0.002 * (random() - 0.5)),
        phase: random(),
        level: (0.4 + random()) * Math.pow(f / hz[0]!, -tilt),
        fall: (6.9 / decay) * Math.sqrt(f / hz[0]!),
      }));
    return (t) =>
      partials.reduce(
        (sum, { turns, phase, level, fall }) =>
          sum + level * Math.sin(2 * Math.PI * (turns * t + phase)) * Math.exp(-fall * t),
        0,
      );
  };
}

const series = (count: number, first: number, ratio: (n: number) => number): number[] =>
  Array.from({ length: count }, (_, n) => first * ratio(n + 1));
const noise = (random: () => number): number => 2 * (random() + random() + random()) - 3;

/** Noise through a one-pole low-pass whose corner moves. */
function darkening(level: (t: number) => number, cornerHz: (t: number) => number): (sampleRate: number) => Wave {
  return (sampleRate) => {
    let state = 0;
    return (t, random) => {
      const share = 1 - Math.exp((-2 * Math.PI * cornerHz(t)) / sampleRate);
      state += (noise(random) - state) * share;
      return (state * level(t)) / Math.sqrt(share);
    };
  };
}

const fall = (t: number, seconds: number): number => Math.pow(10, (-3 * t) / seconds);

/** Places and things along the shore of the demo's pier, all made by our own code. */
export const LIBRARY: readonly LibraryImpulse[] = [
  room(
    'boatShed',
    'Boat shed',
    at([6.4, 11.2, 4.1], ['planks', 'planks', 'planks', 'open', 'concrete', 'planks'], 0.35),
    1,
  ),
  room(
    'saltCistern',
    'Salt cistern',
    at([9.5, 9.5, 6.2], ['brick', 'brick', 'brick', 'brick', 'water', 'brick'], 0.05),
    2,
  ),
  room(
    'ticketHall',
    'Ticket hall',
    at([14.2, 22.5, 7.3], ['plaster', 'glass', 'plaster', 'panel', 'tile', 'plaster'], 0.2),
    3,
  ),
  room(
    'engineRoom',
    'Engine room',
    at([7.1, 13.4, 5.2], ['steel', 'steel', 'steel', 'steel', 'steel', 'steel'], 0.55),
    4,
  ),
  room('netLoft', 'Net loft', at([5.3, 8.1, 2.6], ['panel', 'panel', 'panel', 'panel', 'planks', 'planks'], 0.7), 5),
  room(
    'captainsCabin',
    'Captain’s cabin',
    at([3.1, 3.9, 2.2], ['panel', 'panel', 'glass', 'panel', 'carpet', 'panel'], 0.5),
    6,
  ),
  room(
    'glasshouse',
    'Glasshouse',
    at([8.2, 17.5, 5.6], ['glass', 'glass', 'glass', 'glass', 'sand', 'glass'], 0.15),
    7,
  ),
  room(
    'lighthouseStair',
    'Lighthouse stair',
    at([3.4, 3.4, 21.5], ['brick', 'brick', 'brick', 'brick', 'tile', 'brick'], 0.1),
    8,
  ),
  room(
    'underPier',
    'Under the pier',
    at([11.5, 38.5, 4.4], ['open', 'open', 'open', 'concrete', 'water', 'planks'], 0.25),
    9,
  ),
  room(
    'fishMarket',
    'Fish market',
    at([21.5, 33.5, 9.2], ['tile', 'brick', 'tile', 'open', 'concrete', 'steel'], 0.3),
    10,
  ),
  made(
    'brassBoiler',
    'Brass boiler',
    3.4,
    21,
    struck(
      series(46, 71, (n) => n * (1 + 0.011 * n)),
      3.2,
      0.35,
      301,
    ),
  ),
  made(
    'hullPlate',
    'Hull plate',
    4.2,
    31,
    struck(
      series(120, 58, (n) => Math.pow(n, 1.28)),
      3.8,
      0.12,
      302,
    ),
  ),
  made('mooringChain', 'Mooring chain', 1.8, 41, (rate, side) => {
    const link = struck(
      series(40, 640, (n) => Math.pow(n, 0.83)),
      0.9,
      0.1,
      303,
    )(rate, side);
    return (t, random) =>
      link(t, random, side) * (0.4 + 0.6 * Math.abs(Math.sin(2 * Math.PI * (7 + 5 * side) * t * (1 - 0.2 * t))));
  }),
  made('bottleRow', 'Bottle row', 2.2, 51, struck([196, 233, 294, 349, 440, 523, 659, 784, 988, 1175], 1.9, 0.5, 304)),
  made(
    'seaFret',
    'Sea fret',
    6.5,
    61,
    darkening(
      (t) => Math.min(1, t / 0.4) * fall(t, 6),
      (t) => 600 + 7000 * fall(t, 4),
    ),
  ),
  made(
    'rainOnGlass',
    'Rain on glass',
    2.8,
    71,
    () => (t, random) => (random() < 0.012 * fall(t, 3.4) ? (random() < 0.5 ? 1 : -1) * fall(t, 2.6) : 0),
  ),
  made(
    'comingWave',
    'Coming wave',
    2.4,
    81,
    darkening(
      (t) => Math.pow(t / 2.4, 2.2),
      (t) => 400 + 5200 * (t / 2.4),
    ),
  ),
  made(
    'shortPlanks',
    'Short planks',
    0.35,
    91,
    darkening(
      (t) => fall(t, 0.32),
      () => 6500,
    ),
  ),
];

export const LIBRARY_IDS = LIBRARY.map(({ id }) => id);
