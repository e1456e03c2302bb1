import { makeRandom } from '../dsp/random';
import { effectOf } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import { readyField } from '../piece/edits/fields';
import { emptyPiece, MAIN, newReturn, type Piece, type Track } from '../piece/piece';
import { crates, type CrateHit, type Hit } from './crates';
import { DemoBuilder, type Demo, type Part } from './demo';
import { foghorn } from './foghorn';
import { hum, type SungNote } from './hum';
import { kalimba, type Pluck } from './kalimba';
import { shore } from './shore';

export const SALT_PIER_ID = 'salt-pier';
const BPM = 92;
const BEATS_PER_BAR = 4;
const BARS = 16;
/** Ids of the returns: an echo and a space. */
const [FAR_SHORE, BOAT_HOUSE] = ['far-shore', 'boat-house'];
const RETURNED = { balance: 'mix', mix: 1 } as const;

/**
 * "Salt Pier": sixteen bars at 92 BPM in D minor, two bars a chord: Dm Bb F C, Dm Gm Bb A. All of it is synthesised
 * here.
 * @param hashOf SHA-256 of a file's bytes, as hexadecimal text
 */
export function makeSaltPier(hashOf: (bytes: Uint8Array) => string): Demo {
  const made = new DemoBuilder(
    {
      ...emptyPiece(SALT_PIER_ID, 'Salt Pier'),
      tempo: { bpm: BPM, beatsPerBar: BEATS_PER_BAR },
      lengthBeats: BARS * BEATS_PER_BAR,
      loop: { on: false, start: 8, end: 24 },
    },
    hashOf,
  );
  const { piece } = made;
  const track = (id: string, name: string, gain: number, pan: number, parts: readonly Part[]): Track =>
    made.track({ id, name, gain, pan }, parts);
  piece.tracks.push(
    {
      ...track('kalimba', 'Kalimba', 1, -0.15, kalimbaParts()),
      chain: [newSlot('kalimba-echo', 'echo', 'steppingStones', { mix: 0.22 })],
    },
    {
      ...track('hum', 'Humming voice', 0.55, 0, humParts()),
      sends: [
        { to: FAR_SHORE, level: 0.4, pre: false },
        { to: BOAT_HOUSE, level: 0.18, pre: false },
      ],
    },
    { ...track('crates', 'Crates', 1.2, 0, crateParts()), sends: [{ to: BOAT_HOUSE, level: 0.08, pre: false }] },
    track('foghorn', 'Foghorn bass', 0.8, 0, hornParts()),
    track('shore', 'Ropes and gulls', 0.8, 0, shoreParts()),
  );
  piece.returns.push(
    newReturn(FAR_SHORE, 'Far shore', [newSlot('far-shore-echo', 'echo', 'callAcross', RETURNED)]),
    newReturn(BOAT_HOUSE, 'Boat house', [newSlot('boat-house-hall', 'reverb', 'openWater', RETURNED)]),
  );
  return made.demo(playedOnMain(piece));
}

/** Four holds and a field on the main output, all asleep: it sounds as without them until something is touched. */
function playedOnMain(piece: Piece): Pick<Piece, 'main' | 'fields'> {
  const holds = [
    newSlot('deck-rattle', 'stutter', 'deckRattle'),
    newSlot('anchor-down', 'tapeStop', 'anchorDown'),
    newSlot('undertow', 'backwards', 'undertow'),
    newSlot('sea-smoke', 'cloud', 'seaSmoke'),
  ];
  const sweep = effectOf('filter').fields!.find(({ id }) => id === 'lowWater')!;
  const { field, effect } = readyField(piece, MAIN, 'filter', sweep, { field: 'low-water', slot: 'low-water-filter' });
  return { main: { ...piece.main, chain: [...holds, effect.slot] }, fields: [field] };
}

/** Chord tones from low to high, one row for every two bars. */
const CHORDS = [
  [62, 65, 69, 72, 74, 77],
  [58, 65, 70, 74, 77, 81],
  [60, 65, 69, 72, 77, 81],
  [60, 64, 67, 72, 76, 79],
  [62, 65, 69, 74, 77, 81],
  [62, 67, 70, 74, 79, 82],
  [58, 65, 70, 74, 77, 82],
  [61, 64, 69, 73, 76, 81],
] as const;
/** Eighths of a bar that are plucked: which chord tone, how strongly. */
const FIGURES: readonly (readonly (readonly [number, number, number])[])[] = [
  [
    [0, 0, 0.8],
    [1.5, 3, 0.7],
    [2, 4, 0.55],
    [3, 2, 0.5],
    [3.5, 5, 0.62],
  ],
  [
    [0, 1, 0.7],
    [0.5, 3, 0.5],
    [1.5, 4, 0.72],
    [2.5, 2, 0.5],
    [3, 3, 0.6],
  ],
  [
    [0, 0, 0.8],
    [0.75, 2, 0.45],
    [1.5, 4, 0.7],
    [2, 5, 0.6],
    [3, 3, 0.52],
    [3.5, 2, 0.45],
  ],
];

function pluckBars(firstBar: number, bars: number): Pluck[] {
  const plucks: Pluck[] = [];
  for (let bar = 0; bar < bars; bar += 1) {
    const chord = CHORDS[Math.floor((firstBar - 1 + bar) / 2) % CHORDS.length]!;
    for (const [beat, tone, strength] of FIGURES[(firstBar + bar) % FIGURES.length]!) {
      plucks.push({ beat: bar * BEATS_PER_BAR + beat, note: chord[tone]!, strength });
    }
  }
  return plucks;
}

const KALIMBA = [
  ['Kalimba, ebb', 1, 6],
  ['Kalimba, slack water', 9, 6],
] as const;

/** Phrases that are sung: notes as beat, length in beats, MIDI note, strength and how open the mouth is. */
const SUNG: readonly {
  readonly name: string;
  readonly bar: number;
  readonly beats: number;
  readonly rows: readonly (readonly [number, number, number, number, number])[];
}[] = [
  {
    name: 'Hum, first call',
    bar: 3,
    beats: 10,
    rows: [
      [0, 1.5, 65, 0.8, 0.1],
      [1.5, 0.5, 67, 0.7, 0.1],
      [2, 1.75, 70, 0.9, 0.4],
      [4, 0.75, 69, 0.8, 0.3],
      [4.75, 0.75, 67, 0.7, 0.2],
      [5.5, 2.75, 65, 0.85, 0.7],
    ],
  },
  {
    name: 'Hum, answer',
    bar: 7,
    beats: 6,
    rows: [
      [0.5, 0.5, 64, 0.7, 0.1],
      [1, 1, 67, 0.85, 0.3],
      [2, 1.75, 72, 0.95, 0.8],
      [3.75, 0.5, 71, 0.6, 0.4],
    ],
  },
  {
    name: 'Hum, far boat',
    bar: 11,
    beats: 10,
    rows: [
      [0, 1, 70, 0.8, 0.2],
      [1, 1, 74, 0.95, 0.6],
      [2, 1.5, 72, 0.85, 0.5],
      [4, 1, 70, 0.8, 0.3],
      [5, 0.5, 69, 0.7, 0.2],
      [5.5, 2.75, 65, 0.9, 0.8],
    ],
  },
];

/**
 * Seconds at which the plucked, struck and sung notes of the parts begin, by the name of the part: what an onset finder
 * should find.
 */
export function saltPierOnsets(): ReadonlyMap<string, readonly number[]> {
  const seconds = (notes: readonly { readonly beat: number }[]): number[] =>
    [...new Set(notes.map(({ beat }) => (beat * 60) / BPM))].sort((a, b) => a - b);
  return new Map([
    ...KALIMBA.map(([name, bar, bars]) => [name, seconds(pluckBars(bar, bars))] as const),
    ...SUNG.map(({ name, rows }) => [name, seconds(rows.map(([beat]) => ({ beat })))] as const),
    [CRATES, seconds(crateHits())] as const,
  ]);
}

function kalimbaParts(): Part[] {
  const part = (name: string, bar: number, bars: number): Part => ({
    name,
    bar,
    channels: kalimba(pluckBars(bar, bars), bars * BEATS_PER_BAR, BPM, makeRandom(11 + bar)),
  });
  return KALIMBA.map(([name, bar, bars]) => part(name, bar, bars));
}

function humParts(): Part[] {
  const sung = (rows: readonly (readonly [number, number, number, number, number])[]): SungNote[] =>
    rows.map(([beat, length, note, strength, open]) => ({ beat, length, note, strength, open }));
  const part = (name: string, bar: number, beats: number, rows: SungNote[]): Part => ({
    name,
    bar,
    channels: hum(rows, beats, BPM, makeRandom(101 + bar)),
  });
  return SUNG.map(({ name, bar, beats, rows }) => part(name, bar, beats, sung(rows)));
}

const CRATES = 'Crates, all hands';
const CRATE_BARS = 15;

function crateHits(): Hit[] {
  const hits: Hit[] = [];
  const bars = CRATE_BARS;
  const add = (beat: number, hit: CrateHit, strength: number): void => void hits.push({ beat, hit, strength });
  for (let bar = 0; bar < bars; bar += 1) {
    const at = bar * BEATS_PER_BAR;
    add(at, 'thud', 0.95);
    add(at + 2.5, 'thud', 0.72);
    if (bar % 4 === 3) add(at + 3.5, 'thud', 0.55);
    add(at + 1, 'crack', 0.7);
    add(at + 3, 'crack', 0.76);
    for (let eighth = 0; eighth < 8; eighth += 1) add(at + eighth / 2, 'tick', eighth % 2 === 0 ? 0.35 : 0.62);
    if (bar % 2 === 1)
      for (const [beat, strength] of [
        [1.75, 0.5],
        [2.25, 0.4],
        [3.75, 0.55],
      ] as const)
        add(at + beat, 'tap', strength);
  }
  return hits;
}

function crateParts(): Part[] {
  const beats = CRATE_BARS * BEATS_PER_BAR;
  return [{ name: CRATES, bar: 1, channels: crates(crateHits(), beats, BPM, makeRandom(301)) }];
}

function hornParts(): Part[] {
  const phrases = [
    {
      bar: 1,
      notes: [
        [0, 3, 38],
        [4, 1.5, 38],
        [6, 1.5, 41],
        [8, 3, 34],
        [12, 1.5, 34],
      ],
    },
    {
      bar: 5,
      notes: [
        [0, 3, 41],
        [4, 2, 41],
        [8, 3, 36],
        [12, 1.5, 40],
      ],
    },
    {
      bar: 9,
      notes: [
        [0, 3, 38],
        [4, 2, 38],
        [8, 3, 43],
        [12, 1.5, 43],
      ],
    },
    {
      bar: 13,
      notes: [
        [0, 3, 34],
        [4, 2, 34],
        [8, 2.5, 33],
      ],
    },
  ] as const;
  return phrases.map(({ bar, notes }, i) => ({
    name: `Foghorn, swell ${i + 1}`,
    bar,
    channels: foghorn(
      notes.map(([beat, length, note]) => ({ beat, length, note })),
      i === 3 ? 11.5 : 15,
      BPM,
    ),
  }));
}

function shoreParts(): Part[] {
  const beats = BARS * BEATS_PER_BAR;
  const events = { gulls: [6.5, 25, 30.5, 45, 58], creaks: [14, 38.5, 53.5, 61] };
  return [{ name: 'Low tide', bar: 1, channels: shore(events, beats, BPM, makeRandom(501)) }];
}
