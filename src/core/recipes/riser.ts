import { planPrint } from '../engine/print';
import { makeModulator } from '../automation/modulator';
import type { Point } from '../automation/point';
import { choice, figure, frequency, gain, rate, ratio, toggle } from '../params/make';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Piece, Slot } from '../piece/piece';
import {
  clipsIn,
  laneOn,
  point,
  secondsOf,
  type Recipe,
  type RecipeInput,
  type RecipeResult,
  type Settings,
  type BeatRange,
} from './recipe';
import { plainClip, plainTrack } from '../piece/plain';
import { withFades, risingNoise, risingOwn, risingTone, type RiserWay } from './riserSound';
import { barsBetween, barsLater } from '../music/grid';
import { tempoOf } from '../piece/tempoOf';

/** Level of side of a riser that widens, from its quiet end to its full one, in dB. */
const NARROW_DB = -40;
const WIDE_DB = 4;
/** After its end a riser that is cut is silent within this, in beats. */
const CUT_BEATS = 1e-3;
/** Length of the throw of its end into the echo, in beats; at most an eighth of it. */
const THROWN_BEATS = 1;
const NO_MATERIAL =
  'This track plays nothing in the bar before the stretch, nor in it. Choose noise or a tone, or another track.';

/** A build-up into a bar line, or its mirror after one: clip, effects and moves on a track of its own. */
export const riser: Recipe = {
  id: 'riser',
  name: 'Riser',
  purpose:
    'Builds up into the end of the stretch, or falls away from its beginning: of noise, a tone, or the track’s own sound.',
  searchWords: 'build up transition uplifter sweep noise',
  params: {
    way: choice({
      label: 'Way',
      group: 'Riser',
      hint: 'Up into a bar line, or down from one.',
      initial: 'rise',
      options: [
        { id: 'rise', label: 'rises into its end' },
        { id: 'fall', label: 'falls from its beginning' },
      ],
    }),
    source: choice({
      label: 'Made of',
      group: 'Riser',
      hint: 'The track: what it plays in the bar before, or in the stretch, again and again.',
      initial: 'noise',
      options: [
        { id: 'noise', label: 'noise' },
        { id: 'tone', label: 'a tone' },
        { id: 'own', label: 'the track' },
      ],
    }),
    climb: figure({
      label: 'Climbs',
      group: 'Riser',
      hint: 'How far a tone or the track goes up, into its own key.',
      unit: 'semitones',
      min: 0,
      max: 36,
      initial: 12,
      notches: [0, 12, 24],
      smoothingSeconds: 0,
    }),
    lowHz: frequency({
      label: 'Filter from',
      group: 'Riser',
      hint: 'Where the filter stands at the quiet end.',
      min: 60,
      max: 4000,
      initial: 250,
    }),
    highHz: frequency({
      label: 'Filter to',
      group: 'Riser',
      hint: 'Where it stands at the full end.',
      min: 500,
      max: 20_000,
      initial: 12_000,
    }),
    lfo: toggle({
      label: 'LFO on the filter',
      group: 'Riser',
      hint: 'The filter swings around its way, as a link that can be changed afterwards.',
      initial: false,
    }),
    lfoRate: rate({
      label: 'LFO rate',
      group: 'Riser',
      hint: 'How fast it swings, in Hz or as a note value.',
      initial: '1/8',
    }),
    lfoDepth: ratio({
      label: 'LFO depth',
      group: 'Riser',
      hint: 'How far it swings to either side, as a share of the rail of the cutoff.',
      initial: 0.15,
    }),
    gate: toggle({
      label: 'Gate that quickens',
      group: 'Riser',
      hint: 'Opens and shuts, quicker and quicker towards the full end.',
      initial: false,
    }),
    widens: toggle({
      label: 'Widens',
      group: 'Riser',
      hint: 'In the middle at the quiet end, out to the sides at the full one.',
      initial: false,
    }),
    space: toggle({ label: 'Space that grows', group: 'Riser', hint: 'More and more of a hall.', initial: false }),
    ending: choice({
      label: 'Ends',
      group: 'Riser',
      hint: 'What is heard past the bar line; a fall has died away by then.',
      initial: 'cut',
      options: [
        { id: 'cut', label: 'cut at the bar' },
        { id: 'echo', label: 'into an echo' },
        { id: 'reverb', label: 'into reverb' },
      ],
    }),
    level: gain({ label: 'Level', group: 'Riser', hint: 'At its full end.', initial: 0.6 }),
    roll: figure({
      label: 'Noise',
      group: 'Riser',
      hint: 'Chooses among all noises.',
      unit: 'count',
      min: 1,
      max: 9999,
      initial: 1,
      smoothingSeconds: 0,
    }),
  },
  unavailableReason: () => null,
  renderJob: (input, { word }) => {
    if (word('source') !== 'own') return null;
    const { start, end } = materialOf(input);
    return {
      job: planPrint(input.piece, {
        channel: input.track.id,
        clip: null,
        fromBeat: start,
        toBeat: end,
        part: 'mix',
        tailBars: 0,
      }),
      sounds: [],
    };
  },
  sound: ({ piece, range }, { number, word }, rendered) => {
    const { sampleRate } = piece;
    const length = Math.max(2, Math.round(secondsOf(piece, range) * sampleRate));
    const [way, climb] = [word('way') as RiserWay, number('climb')];
    const made = rendered
      ? risingOwn(rendered, length, sampleRate, climb, way)
      : word('source') === 'tone'
        ? risingTone(length, sampleRate, climb, way)
        : risingNoise(length, Math.round(number('roll')));
    return { channels: withFades(made, sampleRate) };
  },
  apply: ({ piece, range, newId }, settings, sound) => {
    const id = newId();
    const rises = settings.word('way') === 'rise';
    const parts = laidParts(piece, range, settings, id, newId);
    const name = rises ? 'Riser' : 'Fall';
    return {
      tracks: [
        plainTrack(
          id,
          name,
          [plainClip(newId(), name, sound!.hash, range.start, sound!.seconds)],
          parts.chain,
          settings.number('level'),
        ),
      ],
      lanes: parts.lanes,
      ...(settings.is('lfo') ? filterLfo(id, parts.chain[0]!, settings, newId) : {}),
    };
  },
};

/**
 * Material of a riser made from the track: the bar before the range, or its first bar where that is empty.
 * @throws Error where the track plays in neither
 */
function materialOf({ piece, track, range }: RecipeInput): BeatRange {
  const at = (bars: number): number => barsLater(range.start, bars, tempoOf(piece));
  const before = { start: Math.max(0, at(-1)), end: range.start };
  const within = { start: range.start, end: Math.min(range.end, at(1)) };
  const found = [before, within].find((one) => one.end > one.start && clipsIn({ piece, track, range: one }).length > 0);
  if (!found) throw new Error(NO_MATERIAL);
  return found;
}

/** An LFO around the lane of the riser's filter. */
function filterLfo(
  channel: string,
  filter: Slot,
  { rate: rateOf, number }: Settings,
  newId: () => string,
): Pick<RecipeResult, 'modulators' | 'links'> {
  const modulator = makeModulator('lfo', { id: newId(), name: 'Riser LFO', rate: rateOf('lfoRate') });
  const target = { kind: 'effect', channel, effect: filter.id, param: 'cutoff' } as const;
  return {
    modulators: [modulator],
    links: [{ id: newId(), modulator: modulator.id, target, depth: number('lfoDepth') }],
  };
}

interface Parts {
  readonly chain: readonly Slot[];
  readonly lanes: readonly Lane[];
}

/** The effects of a riser and the moves that make it build, all of it editable afterwards. */
function laidParts(piece: Piece, range: BeatRange, settings: Settings, channel: string, newId: () => string): Parts {
  const { number, word, is } = settings;
  const { start, end } = range;
  const rises = word('way') === 'rise';
  const [echoes, rings] = [rises && word('ending') === 'echo', rises && word('ending') === 'reverb'];
  const chain: Slot[] = [];
  const lanes: Lane[] = [];
  const add = (slot: Slot, param: string, points: readonly Point[]): void => {
    chain.push(slot);
    lanes.push(laneOn(newId(), channel, slot.id, param, points));
  };
  // From the quiet end to the full one; a fall is the same the other way round.
  const way = (quiet: number, full: number): Point[] => [
    point(start, rises ? quiet : full),
    point(end, rises ? full : quiet),
  ];
  const late = Math.max(start, end - Math.min(THROWN_BEATS, (end - start) / 8));
  add(
    newSlot(newId(), 'filter', 'neutral', { kind: 'low', slope: '24', cutoff: number('highHz'), resonance: 0.25 }),
    'cutoff',
    way(number('lowHz'), number('highHz')),
  );
  if (is('widens')) add(newSlot(newId(), 'width', 'neutral', { side: 0 }), 'side', way(NARROW_DB, WIDE_DB));
  if (echoes)
    add(
      newSlot(newId(), 'echo', 'neutral', {
        timeL: '1/8d',
        feedback: 0.55,
        cutoff: 4000,
        filter: 'low',
        input: 1,
        balance: 'mix',
        mix: 0.35,
      }),
      'input',
      [point(start, 0, 'hold'), point(late, 0), point(end, 1, 'hold')],
    );
  if (is('space') || rings) {
    const bars = Math.max(1, Math.round(barsBetween(start, end, tempoOf(piece))));
    const hall = newSlot(newId(), 'reverb', 'neutral', {
      space: 'hall',
      decay: Math.min(8000, 1200 * bars),
      balance: 'mix',
      mix: 0.1,
    });
    add(hall, 'mix', is('space') ? way(0.05, 0.5) : [point(start, 0, 'hold'), point(late, 0), point(end, 0.5, 'hold')]);
  }
  const ends = !rises || echoes || rings ? [] : [point(end + CUT_BEATS, 0, 'hold')];
  const gains = is('gate') ? gated(range, rises, number('level')) : way(0, number('level'));
  lanes.push({
    id: newId(),
    target: { kind: 'channel', channel, param: 'gain' },
    unit: 'own',
    on: true,
    points: [...gains, ...ends],
  });
  return { chain, lanes };
}

/** Notes in beats by which a gate opens, from the quiet end to the full one: each for a quarter of the stretch. */
const GATE_BEATS: readonly number[] = [1, 0.5, 0.25, 0.125];

/** Held steps, open for half of each note, as loud as the riser is there. */
function gated({ start, end }: BeatRange, rises: boolean, level: number): Point[] {
  const points: Point[] = [];
  const length = end - start;
  let beat = start;
  while (beat < end - 1e-9) {
    const share = (beat - start) / length;
    const grown = rises ? share : 1 - share;
    const note = Math.min(
      GATE_BEATS[Math.min(GATE_BEATS.length - 1, Math.floor(grown * GATE_BEATS.length * (1 - 1e-9)))]!,
      end - beat,
    );
    points.push(point(beat, level * (0.15 + 0.85 * grown), 'hold'), point(beat + note / 2, 0, 'hold'));
    beat += note;
  }
  points.push(point(end, rises ? level : 0, 'hold'));
  return points;
}
