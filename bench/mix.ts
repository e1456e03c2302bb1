import { newSlot } from '../src/core/piece/edits/chain';
import type { Piece, Slot } from '../src/core/piece/piece';

type Effects = readonly (readonly [effect: string, preset: string, values?: Slot['values']])[];

const TRACKS: readonly Effects[] = [
  [
    ['eq', 'neutral'],
    ['echo', 'callAcross'],
  ],
  [
    ['filter', 'neutral'],
    ['tremolo', 'sideToSide'],
  ],
  [
    ['eq', 'neutral'],
    ['phaser', 'slowSwell'],
  ],
  [
    ['doubling', 'neutral'],
    ['width', 'neutral'],
  ],
  [
    ['eq', 'neutral'],
    ['echo', 'steppingStones'],
  ],
  [
    ['placer', 'neutral'],
    ['eq', 'neutral'],
  ],
  [
    ['taps', 'spray'],
    ['filter', 'neutral'],
  ],
  [
    ['eq', 'neutral'],
    ['widener', 'spreadNet'],
  ],
];
const WET = { balance: 'mix', mix: 1 };
const RETURNS: readonly (readonly [id: string, effects: Effects])[] = [
  [
    'hall',
    [
      ['reverb', 'openWater', WET],
      ['eq', 'neutral'],
    ],
  ],
  [
    'plate',
    [
      ['reverb', 'brassSheet', WET],
      ['width', 'neutral'],
    ],
  ],
  [
    'place',
    [
      ['convolver', 'neutral', { ...WET, impulse: 'saltCistern', length: 3000 }],
      ['filter', 'neutral'],
    ],
  ],
];

const chain = (id: string, effects: Effects): Slot[] =>
  effects.map(([effect, preset, values = {}], i) => newSlot(`${id}-${i}`, effect, preset, values));

/**
 * @returns a mix of eight tracks, three returns and twenty-four effects made of the demo's sounds: two reverbs, one
 * convolver of three seconds
 */
export function mixOf(demo: Piece): Piece {
  return {
    ...demo,
    id: 'bench-mix',
    tracks: TRACKS.map((effects, i) => {
      const from = demo.tracks[i % demo.tracks.length]!;
      return {
        ...from,
        id: `t${i}`,
        name: `Track ${i}`,
        gain: 0.4,
        clips: from.clips.map((clip) => ({ ...clip, id: `${clip.id}-${i}` })),
        chain: chain(`t${i}`, effects),
        sends: RETURNS.map(([to]) => ({ to, level: 0.3, pre: false })),
      };
    }),
    returns: RETURNS.map(([id, effects]) => ({
      id,
      name: id,
      gain: 1,
      pan: 0,
      mute: false,
      solo: false,
      sends: [],
      chain: chain(id, effects),
    })),
    main: {
      gain: 1,
      chain: chain('main', [
        ['eq', 'neutral'],
        ['limiter', 'neutral'],
      ]),
    },
    lanes: [],
  };
}
