import { soundOnsets } from '../analysis/onsets';
import { makeRandom } from '../dsp/random';
import type { SoundData } from '../dsp/soundData';
import { writeWav } from '../formats/writeWav';
import { applyEdit } from '../piece/edit';
import { newSlot } from '../piece/edits/chain';
import { layParts } from '../piece/edits/recipes';
import { trackHits } from '../piece/moves/throws';
import { emptyPiece, newReturn, type Piece, type Section } from '../piece/piece';
import type { ParamValues } from '../params/param';
import { DemoBuilder, type Demo, type DemoSound, type Part } from '../sounds/demo';
import { heatingPipes, type PipeNote } from '../sounds/heatingPipes';
import { hum, type SungNote } from '../sounds/hum';
import { kalimba, type Pluck } from '../sounds/kalimba';
import { rain } from '../sounds/rain';
import { RECIPES } from './all';
import type { BeatRange } from './recipe';
import { recipeEditArgs, recipeSoundInfo, swellEditArgs } from './recipeEdit';
import { renderRecipe, renderSwells } from './renderRecipe';
import { hitSources } from './reverseSwell';

export const GLASSHOUSE_RAIN_ID = 'glasshouse-rain';
const BPM = 60;
const BEATS_PER_BAR = 4;
const BARS = 45;

const SECTIONS = [
  ['First drops', 1],
  ['Fern bench', 10],
  ['Steam', 19],
  ['Hard rain', 28],
  ['Drip line', 37],
] as const;
/** A chord a section: bass note first. D minor 9, B flat with its seventh, F over A, G minor 9, D with an open fifth. */
const CHORDS = [
  [38, 62, 64, 65, 69, 72],
  [34, 62, 65, 69, 70, 74],
  [33, 60, 65, 69, 72, 77],
  [31, 62, 65, 69, 70, 77],
  [38, 62, 64, 69, 74, 76],
] as const;
const startOf = (section: number): number => SECTIONS[section]![1];

/**
 * "Glasshouse Rain": three minutes at 60 BPM in D, five sections of nine bars. Rain on a glass roof, seedling tines that
 * move round the listener, a gardener who hums, warm pipes; beds, swells, a loop and a sweep are made with the recipes
 * that everyone has, so that each can be opened and changed. All of it is synthesised.
 * @param hashOf SHA-256 of a file's bytes, as hexadecimal text
 */
export function makeGlasshouseRain(hashOf: (bytes: Uint8Array) => string): Demo {
  const made = new DemoBuilder(
    {
      ...emptyPiece(GLASSHOUSE_RAIN_ID, 'Glasshouse Rain'),
      tempo: { bpm: BPM, beatsPerBar: BEATS_PER_BAR },
      lengthBeats: BARS * BEATS_PER_BAR,
      sections: SECTIONS.map(([name, bar], i): Section => ({
        id: `section-${i + 1}`,
        name,
        beat: (bar - 1) * BEATS_PER_BAR,
      })),
    },
    hashOf,
  );
  const sends = (roof: number, gutter: number) => [
    { to: ROOF, level: roof, pre: false },
    { to: GUTTER, level: gutter, pre: false },
  ];
  const tracks = [
    { ...made.track({ id: 'rain', name: 'Rain on glass', gain: 0.9, pan: 0 }, rainParts()), sends: sends(0.05, 0) },
    {
      ...made.track({ id: 'tines', name: 'Seedling tines', gain: 1.6, pan: 0 }, tineParts()),
      chain: [newSlot('tines-place', 'placer', 'neutral', { path: 'circle', distance: 2.5, rate: '4 bars' })],
      sends: sends(0.35, 0.3),
    },
    {
      ...made.track({ id: 'gardener', name: 'Gardener', gain: 0.5, pan: 0.05 }, voiceParts()),
      sends: sends(0.4, 0.12),
    },
    { ...made.track({ id: 'pipes', name: 'Heating pipes', gain: 0.45, pan: 0 }, pipeParts()), sends: sends(0.1, 0) },
  ];
  const { piece, sounds } = made.demo({
    tracks,
    returns: [
      newReturn(ROOF, 'Glass roof', [newSlot('roof-space', 'reverb', 'seaFret', RETURNED)]),
      newReturn(GUTTER, 'Long gutter', [newSlot('gutter-echo', 'echo', 'fogBank', RETURNED)]),
    ],
    main: { gain: 1, chain: [newSlot('main-limiter', 'limiter', 'neutral')] },
  });
  return new RecipeMaker(piece, sounds, hashOf).makeAll();
}

const [ROOF, GUTTER] = ['glass-roof', 'long-gutter'];
const RETURNED = { balance: 'mix', mix: 1 } as const;

/** Lays recipes into the piece, each as a person would. */
class RecipeMaker {
  private readonly channels: Map<string, SoundData>;
  private readonly sounds: DemoSound[];
  private ids = 0;

  constructor(
    private piece: Piece,
    sounds: readonly DemoSound[],
    private readonly hashOf: (bytes: Uint8Array) => string,
  ) {
    this.sounds = [...sounds];
    this.channels = new Map(sounds.map(({ hash, channels }) => [hash, channels]));
  }

  makeAll(): Demo {
    this.make('bed', 'gardener', bars(7, 10), { take: '4', space: 'hall', comes: '4', level: 0.35 });
    this.make('bed', 'gardener', bars(16, 19), { take: '4', space: 'cloud', comes: '4', level: 0.4 });
    this.make('bed', 'gardener', bars(25, 28), { take: '4', space: 'cloud', comes: '4', level: 0.4 });
    this.swells('tines', bars(10, 28));
    this.make('loop', 'tines', bars(28, 29), { bars: 8, wholeBeats: true, overlap: 0.3, level: 0.3 });
    this.make('sweep', 'rain', bars(28, 37), {});
    this.make('octave', 'pipes', bars(28, 32), {});
    return { piece: this.piece, sounds: this.sounds };
  }

  private readonly newId = (): string => `made-${(this.ids += 1)}`;

  private store(channels: SoundData): string {
    const copies = channels.map((channel) => Float32Array.from(channel));
    const bytes = writeWav({ sampleRate: this.piece.sampleRate, channels: copies }, '32f');
    const hash = this.hashOf(bytes);
    if (this.channels.has(hash)) return hash;
    this.sounds.push({ hash, bytes, channels: copies });
    this.channels.set(hash, copies);
    return hash;
  }

  private make(id: string, trackId: string, range: BeatRange, values: ParamValues): void {
    const recipe = RECIPES.find((one) => one.id === id)!;
    const track = this.piece.tracks.find((one) => one.id === trackId)!;
    const { piece, newId, channels } = this;
    const input = { piece, track, range, hits: [], sound: (hash: string) => channels.get(hash), newId };
    const call = { recipe, input, values };
    const sound = renderRecipe(call, channels);
    const stored = sound && {
      hash: this.store(sound.channels),
      info: recipeSoundInfo(sound, `${recipe.name}, ${track.name}`, piece.sampleRate),
    };
    this.piece = applyEdit(piece, layParts, recipeEditArgs(call, stored)).piece;
  }

  /** A swell into the first tine of every other bar. */
  private swells(trackId: string, range: BeatRange): void {
    const { piece, newId, channels } = this;
    const track = piece.tracks.find((one) => one.id === trackId)!;
    const hits = trackHits(piece, track, (hash) => soundOnsets(channels.get(hash)!, piece.sampleRate));
    const chosen = hits.flatMap(({ beat, strength }, i) =>
      beat >= range.start && beat < range.end && strength > 0.5 && Math.abs(beat % 8) < 0.1 ? [i] : [],
    );
    const sources = hitSources(piece, track, hits, chosen, 'chosen');
    const values = { length: 'bar', space: 'hall', highCut: 5000, level: 0.5 };
    const store = (made: SoundData): string => this.store(made);
    const swells = renderSwells(piece, track, sources, values, channels, { store, newId });
    const args = swellEditArgs(track, swells, newId(), 0.6);
    this.piece = applyEdit(piece, layParts, args).piece;
  }
}

const bars = (from: number, to: number): BeatRange => ({
  start: (from - 1) * BEATS_PER_BAR,
  end: (to - 1) * BEATS_PER_BAR,
});

/** Rain comes in stretches of so many bars, each laid over the end of the one before. */
const RAIN_BARS = 3;
const RAIN_SECONDS = 13;
/** Sections in which it rains hard. */
const HARD = 3;

function rainParts(): Part[] {
  const everyBar = (from: number, to: number): number[] =>
    Array.from({ length: Math.floor((to - from) / RAIN_BARS) }, (_, i) => from + i * RAIN_BARS);
  const [hard, after] = [startOf(HARD), startOf(HARD + 1)];
  return [
    {
      name: 'Rain, thin',
      bar: [...everyBar(1, hard), ...everyBar(after, BARS + 1)],
      channels: rain(RAIN_SECONDS, 0.25, makeRandom(601)),
    },
    { name: 'Rain, hard', bar: everyBar(hard, after), channels: rain(RAIN_SECONDS, 1, makeRandom(602)) },
  ];
}

/** Beat within two bars, which chord tone, how strongly. */
const FIGURE = [
  [0, 2, 0.8],
  [1.5, 4, 0.45],
  [3, 3, 0.5],
  [5, 5, 0.55],
  [6.5, 1, 0.4],
] as const;

/** Tines come in stretches of four bars, twice a section; the last two sections take up earlier ones. */
const TINE_BARS = 4;

function tineParts(): Part[] {
  return [0, 1, 2].map((section) => {
    const plucks = [0, 1].flatMap((pair) =>
      // Every pair of bars leaves out another stroke.
      FIGURE.flatMap(([beat, tone, strength], i): Pluck[] =>
        (i + pair + section) % 5 === 4
          ? []
          : [{ beat: pair * 2 * BEATS_PER_BAR + beat, note: CHORDS[section]![1 + ((tone + pair) % 5)]!, strength }],
      ),
    );
    const sections = section === 0 ? [0, 4] : section === 1 ? [1, 3] : [2];
    const [left] = kalimba(plucks, TINE_BARS * BEATS_PER_BAR, BPM, makeRandom(701 + section));
    return {
      name: `Tines, ${SECTIONS[section]![0].toLowerCase()}`,
      bar: sections.flatMap((at) => [startOf(at), startOf(at) + TINE_BARS]),
      // One side: a place round the listener is given to it as one.
      channels: [left!],
    };
  });
}

const PHRASES: readonly {
  readonly name: string;
  readonly bar: number;
  readonly rows: readonly (readonly number[])[];
}[] = [
  {
    name: 'Hum, over the seed trays',
    bar: 4,
    rows: [
      [0, 3, 62, 0.7, 0.2],
      [3, 2, 65, 0.75, 0.3],
      [5, 4, 64, 0.8, 0.5],
      [9, 3, 62, 0.6, 0.2],
    ],
  },
  {
    name: 'Hum, to the ferns',
    bar: 13,
    rows: [
      [0, 2, 65, 0.7, 0.2],
      [2, 3, 69, 0.8, 0.5],
      [5, 3, 70, 0.85, 0.6],
      [8, 4, 65, 0.7, 0.3],
    ],
  },
  {
    name: 'Hum, in the steam',
    bar: 22,
    rows: [
      [0, 3, 69, 0.75, 0.3],
      [3, 2, 72, 0.85, 0.6],
      [5, 3, 69, 0.8, 0.4],
      [8, 4, 65, 0.7, 0.2],
    ],
  },
  {
    name: 'Hum, going home',
    bar: 40,
    rows: [
      [0, 4, 64, 0.7, 0.3],
      [4, 4, 62, 0.7, 0.4],
      [8, 8, 57, 0.6, 0.2],
    ],
  },
];

function voiceParts(): Part[] {
  return PHRASES.map(({ name, bar, rows }, i) => {
    const notes = rows.map(([beat, length, note, strength, open]): SungNote => ({
      beat: beat!,
      length: length!,
      note: note!,
      strength: strength!,
      open: open!,
    }));
    const last = notes.at(-1)!;
    return { name, bar, channels: hum(notes, last.beat + last.length + 1, BPM, makeRandom(801 + i)) };
  });
}

/** Notes of the pipes in each section: D and its fifth, B flat, F over A, G minor. */
const PIPES = [
  [38, 45, 50],
  [34, 41, 46],
  [33, 41, 48],
  [31, 38, 46],
] as const;
/** A note of the pipes goes on for so long, and comes twice a section. */
const PIPE_BEATS = 18;

function pipeParts(): Part[] {
  return [0, 1, 2, 3].map((section) => {
    const [bass, middle, high] = PIPES[section]!;
    const notes: PipeNote[] = [
      { beat: 0, length: PIPE_BEATS, note: bass },
      { beat: 3, length: 11, note: high },
      { beat: 8, length: 10, note: middle },
    ];
    const [left] = heatingPipes(notes, PIPE_BEATS, BPM);
    return {
      name: `Pipes, ${SECTIONS[section]![0].toLowerCase()}`,
      bar: (section === 0 ? [0, 4] : [section]).flatMap((at) => [startOf(at), startOf(at) + TINE_BARS]),
      channels: [left!],
    };
  });
}
