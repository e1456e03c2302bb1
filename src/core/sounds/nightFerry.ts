import { makeRandom } from '../dsp/random';
import { effectOf } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import { readyField } from '../piece/edits/fields';
import { newReturn, emptyPiece, MAIN, type Piece, type Return } from '../piece/piece';
import { DemoBuilder, type Demo, type Part } from './demo';
import { engineRoom, type EngineHit, type EngineStroke } from './engineRoom';
import { hum, type SungNote } from './hum';
import { propeller, type PropellerNote } from './propeller';
import { lamps, reeds, type Key } from './wheelhouse';

export const NIGHT_FERRY_ID = 'night-ferry';
const BPM = 118;
/** Six eighths, in quarter notes. */
const BEATS_PER_BAR = 3;
const BARS = 48;
/** The parts are eight bars long and come again. */
const PART_BARS = 8;
const PART_BEATS = PART_BARS * BEATS_PER_BAR;

/** The bar at which each section begins, from 1. */
const SECTIONS = [
  ['Cast off', 1],
  ['Crossing', 9],
  ['Open water', 25],
  ['Lights ahead', 33],
  ['Alongside', 41],
] as const;

/** E minor 9, C, G, D over F sharp, A minor 7 and B: one row a bar, bass note first, then chord tones from low to high. */
const CHORDS = [
  [40, 52, 59, 62, 66, 67],
  [40, 52, 59, 62, 66, 71],
  [36, 52, 55, 59, 64, 67],
  [36, 52, 55, 59, 62, 67],
  [43, 55, 59, 62, 66, 69],
  [42, 54, 57, 62, 64, 69],
  [45, 55, 57, 60, 64, 67],
  [35, 51, 57, 59, 63, 66],
] as const;
type Chord = (typeof CHORDS)[number];

/**
 * "Night Ferry": forty-eight bars of 6/8 at 118 quarter notes a minute in E minor, made to be played. Drums, bass, two
 * hands of chords and a voice come in parts of eight bars; holds on the main output and throws of every track into two
 * returns are ready. All of it is synthesised here.
 * @param hashOf SHA-256 of a file's bytes, as hexadecimal text
 */
export function makeNightFerry(hashOf: (bytes: Uint8Array) => string): Demo {
  const made = new DemoBuilder(
    {
      ...emptyPiece(NIGHT_FERRY_ID, 'Night Ferry'),
      tempo: { bpm: BPM, beatsPerBar: BEATS_PER_BAR, unit: 8 },
      lengthBeats: BARS * BEATS_PER_BAR,
      loop: { on: false, start: 8 * BEATS_PER_BAR, end: 24 * BEATS_PER_BAR },
      sections: SECTIONS.map(([name, bar], i) => ({ id: `section-${i + 1}`, name, beat: (bar - 1) * BEATS_PER_BAR })),
    },
    hashOf,
  );
  const sends = RETURNS.map(({ id }) => ({ to: id, level: 0, pre: false }));
  const tracks = [
    made.track({ id: 'drums', name: 'Engine room', gain: 1.3, pan: 0 }, drumParts()),
    made.track({ id: 'bass', name: 'Propeller bass', gain: 0.4, pan: 0 }, bassParts()),
    made.track({ id: 'left-hand', name: 'Left hand, reeds', gain: 0.62, pan: -0.12 }, leftHandParts()),
    made.track({ id: 'right-hand', name: 'Right hand, lamps', gain: 0.85, pan: 0.15 }, rightHandParts()),
    made.track({ id: 'voice', name: 'Lookout', gain: 0.5, pan: 0 }, voiceParts()),
  ].map((track) => ({ ...track, sends }));
  return made.demo({ tracks, returns: [...RETURNS], ...playedOnMain({ ...made.piece, tracks }) });
}

const returned = (id: string, name: string, effect: string, preset: string): Return =>
  newReturn(id, name, [newSlot(`${id}-effect`, effect, preset, { mix: 1 })]);

const RETURNS: readonly Return[] = [
  returned('wake', 'Wake', 'echo', 'steppingStones'),
  returned('harbour', 'Harbour', 'reverb', 'neutral'),
];

/** Six holds and a field on the main output, all asleep. */
function playedOnMain(piece: Piece): Pick<Piece, 'main' | 'fields'> {
  const holds = [
    newSlot('stutter', 'stutter', 'deckRattle'),
    newSlot('tape-stop', 'tapeStop', 'anchorDown'),
    newSlot('backwards', 'backwards', 'undertow'),
    newSlot('cloud', 'cloud', 'seaSmoke'),
    newSlot('reorder', 'reorder', 'spilledCrate'),
    newSlot('chop', 'chop', 'signalLamp'),
  ];
  const sweep = effectOf('filter').fields!.find(({ id }) => id === 'lowWater')!;
  const { field, effect } = readyField(piece, MAIN, 'filter', sweep, { field: 'low-water', slot: 'low-water-filter' });
  return { main: { ...piece.main, chain: [...holds, effect.slot] }, fields: [field] };
}

type Row = readonly (readonly [beat: number, hit: EngineHit, strength: number])[];

/** Both bars of the groove: six eighths, the weight on the first and the fourth. */
const GROOVE: readonly Row[] = [
  [
    [0, 'piston', 1],
    [1.5, 'valve', 0.85],
    [2.5, 'piston', 0.55],
    [0.75, 'rivet', 0.4],
  ],
  [
    [0, 'piston', 0.95],
    [1, 'piston', 0.5],
    [1.5, 'valve', 0.9],
    [2.25, 'rivet', 0.55],
    [2.75, 'valve', 0.25],
  ],
];
const CHAIN = [0.62, 0.3, 0.42, 0.56, 0.3, 0.46];
/** Ends every part: strokes that lead back to its first bar. */
const FILL: Row = [
  [0, 'piston', 1],
  [1, 'valve', 0.5],
  [1.5, 'valve', 0.8],
  [2, 'valve', 0.55],
  [2.25, 'rivet', 0.6],
  [2.5, 'valve', 0.9],
  [2.75, 'piston', 0.6],
];

/** The drums of eight bars. */
export const nightFerryStrokes = (): EngineStroke[] =>
  Array.from({ length: PART_BARS }, (_, bar) => {
    const row = bar === PART_BARS - 1 ? FILL : GROOVE[bar % 2]!;
    const at = bar * BEATS_PER_BAR;
    return [
      ...row.map(([beat, hit, strength]): EngineStroke => ({ beat: at + beat, hit, strength })),
      ...CHAIN.map((strength, eighth): EngineStroke => ({ beat: at + eighth / 2, hit: 'chain', strength })),
    ];
  }).flat();

const drumParts = (): Part[] => [
  {
    name: 'Engine room, under way',
    bar: [9, 17, 33],
    channels: engineRoom(nightFerryStrokes(), PART_BEATS, BPM, makeRandom(701)),
  },
  {
    name: 'Engine room, idling',
    bar: [5, 41],
    channels: engineRoom(
      nightFerryStrokes().filter(({ beat, hit }) => beat < 4 * BEATS_PER_BAR && (hit === 'chain' || hit === 'rivet')),
      4 * BEATS_PER_BAR,
      BPM,
      makeRandom(702),
    ),
  },
];

/** The bass of a bar: beat, length, steps over the bass note, strength. */
const BASS_BARS: readonly (readonly (readonly [number, number, number, number])[])[] = [
  [
    [0, 1.25, 0, 1],
    [1.5, 0.4, 0, 0.7],
    [2, 0.4, 7, 0.6],
    [2.5, 0.4, 12, 0.7],
  ],
  [
    [0, 1.4, 0, 0.95],
    [1.5, 0.9, 7, 0.75],
    [2.5, 0.4, 0, 0.6],
  ],
];

function bassParts(): Part[] {
  const notes = CHORDS.flatMap(([root], bar) =>
    BASS_BARS[bar % 2]!.map(([beat, length, over, strength]): PropellerNote => ({
      beat: bar * BEATS_PER_BAR + beat,
      length,
      note: root + over,
      strength,
    })),
  );
  const held = (chords: readonly Chord[]): PropellerNote[] =>
    chords.map(([root], bar) => ({ beat: bar * BEATS_PER_BAR, length: 2.8, note: root, strength: 0.8 }));
  return [
    { name: 'Propeller, steady', bar: [9, 17, 33], channels: propeller(notes, PART_BEATS, BPM) },
    { name: 'Propeller, slow', bar: 25, channels: propeller(held(CHORDS), PART_BEATS, BPM) },
    { name: 'Propeller, alongside', bar: 41, channels: propeller(held(CLOSING), PART_BEATS, BPM) },
  ];
}

/** The last eight bars come home instead of leading back. */
const CLOSING = [...CHORDS.slice(0, 7), CHORDS[0]];

/** Where the left hand plays in a bar: beat, length, which chord tones, strength. */
const LEFT: readonly (readonly [number, number, readonly number[], number])[] = [
  [0, 1.3, [1, 2, 3], 0.8],
  [1.5, 0.45, [2, 3], 0.6],
  [2.5, 0.45, [2, 3, 4], 0.5],
];

const HELD: typeof LEFT = [[0, 2.7, [1, 2, 3, 4], 0.7]];

function leftHandParts(): Part[] {
  const keys = (chords: readonly Chord[], rows: typeof LEFT): Key[] =>
    chords.flatMap((chord, bar) =>
      rows.flatMap(([beat, length, tones, strength]) =>
        tones.map((tone): Key => ({ beat: bar * BEATS_PER_BAR + beat, length, note: chord[tone]!, strength })),
      ),
    );
  return [
    { name: 'Reeds, held', bar: [1, 25], channels: reeds(keys(CHORDS, HELD), PART_BEATS, BPM) },
    { name: 'Reeds, rocking', bar: [9, 17, 33], channels: reeds(keys(CHORDS, LEFT), PART_BEATS, BPM) },
    { name: 'Reeds, alongside', bar: 41, channels: reeds(keys(CLOSING, HELD), PART_BEATS, BPM) },
  ];
}

/** Chord tones of the right hand, an eighth each, and its accents. */
const RIGHT = [
  [2, 4, 3, 5, 4, 3],
  [5, 3, 4, 2, 4, 5],
] as const;
const ACCENTS = [0.8, 0.4, 0.5, 0.7, 0.4, 0.5];

const onBeat = (eighth: number): boolean => eighth % 3 === 0;

function rightHandParts(): Part[] {
  const keys = (chords: readonly Chord[], isPlayed: (eighth: number) => boolean): Key[] =>
    chords.flatMap((chord, bar) =>
      RIGHT[bar % 2]!.flatMap((tone, eighth): Key[] =>
        isPlayed(eighth)
          ? [
              {
                beat: bar * BEATS_PER_BAR + eighth / 2,
                length: 0.5,
                note: chord[tone]! + 12,
                strength: ACCENTS[eighth]!,
              },
            ]
          : [],
      ),
    );
  return [
    { name: 'Lamps, far', bar: [1, 9, 25], channels: lamps(keys(CHORDS, onBeat), PART_BEATS, BPM) },
    {
      name: 'Lamps, near',
      bar: [17, 33],
      channels: lamps(
        keys(CHORDS, () => true),
        PART_BEATS,
        BPM,
      ),
    },
    { name: 'Lamps, alongside', bar: 41, channels: lamps(keys(CLOSING, onBeat), PART_BEATS, BPM) },
  ];
}

type Sung = readonly (readonly [beat: number, length: number, note: number, strength: number, open: number])[];

const CALL: Sung = [
  [0, 1.4, 71, 0.85, 0.3],
  [1.5, 0.5, 69, 0.7, 0.2],
  [2, 1, 67, 0.75, 0.3],
  [3, 2.4, 66, 0.9, 0.6],
  [6, 1, 64, 0.75, 0.2],
  [7, 0.5, 66, 0.65, 0.2],
  [7.5, 1.4, 67, 0.85, 0.5],
  [9, 2.6, 64, 0.8, 0.3],
];
const ANSWER: Sung = [
  [0, 0.9, 67, 0.75, 0.2],
  [1, 0.5, 69, 0.7, 0.2],
  [1.5, 1.4, 71, 0.9, 0.5],
  [3, 1.9, 74, 1, 0.8],
  [5, 0.9, 72, 0.8, 0.4],
  [6, 1.4, 72, 0.85, 0.5],
  [7.5, 1.4, 69, 0.75, 0.3],
  [9, 2.6, 71, 0.9, 0.7],
];
const LONG: Sung = [
  [0, 5.6, 67, 0.7, 0.5],
  [6, 5.6, 64, 0.75, 0.3],
  [12, 2.8, 71, 0.85, 0.7],
  [15, 2.8, 69, 0.85, 0.6],
  [18, 2.8, 67, 0.8, 0.4],
  [21, 2.6, 66, 0.75, 0.5],
];

function voiceParts(): Part[] {
  const part = (name: string, bar: readonly number[], rows: Sung, bars: number, roll: number): Part => ({
    name,
    bar,
    channels: hum(
      rows.map(([beat, length, note, strength, open]): SungNote => ({ beat, length, note, strength, open })),
      bars * BEATS_PER_BAR,
      BPM,
      makeRandom(roll),
    ),
  });
  return [
    part('Lookout, call', [9, 17, 33], CALL, 4, 801),
    part('Lookout, answer', [13, 21, 37], ANSWER, 4, 802),
    part('Lookout, long', [25, 41], LONG, 8, 803),
  ];
}
