import { compilePlan } from '../engine/compilePlan';
import type { PrintJob } from '../engine/print';
import type { Point } from '../automation/point';
import { choice, frequency, gain } from '../params/make';
import { toEngineNumber } from '../params/resolve';
import { effectOf } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import { contextOf } from '../piece/find';
import { emptyPiece, type Piece } from '../piece/piece';
import { tempoLane } from '../piece/tempoOf';
import { clipsIn, point, sampleAt, secondsOf, type Recipe, type RecipeInput, type Settings } from './recipe';
import { plainClip, plainTrack } from '../piece/plain';

const SPACES = ['hall', 'plate', 'cloud'] as const;
const TAKEN = ['1', '2', '4', '8'] as const;
const MAX_TAKEN = 8;
/** Seconds before the range at which the reverb is frozen, so that it is frozen at its first sample. */
const FROZEN_BEFORE_BEATS = 0.1;
/** Fade-out at the next phrase. */
const CUT_SECONDS = 0.03;
/** Fade-in, so that it never clicks. */
const MIN_FADE_SECONDS = 0.01;
/** Its peak at a level of 1. */
const FULL = 0.5;
/** Peak below which the input counts as silent. */
const SILENT = 1e-4;
const NOTHING =
  'This track plays nothing before the stretch, so there is nothing to freeze. Take more beats, or begin the stretch where a phrase ends.';

/** A bed: the sound of a track before a range, sustained by a frozen reverb over the range. */
export const bed: Recipe = {
  id: 'bed',
  name: 'Frozen bed',
  purpose: 'What the track plays before the stretch rings in a space, is held there, and fills the stretch.',
  searchWords: 'drone pad freeze ambience ambient',
  params: {
    take: choice({
      label: 'Takes',
      group: 'Bed',
      hint: 'How much of what comes before the stretch is taken into the space.',
      initial: '4',
      options: TAKEN.map((id) => ({ id, label: `${id} ${id === '1' ? 'beat' : 'beats'}` })),
    }),
    comes: choice({
      label: 'Comes in',
      group: 'Bed',
      hint: 'How long it takes to come up.',
      initial: '1',
      options: [
        { id: '0', label: 'in at once' },
        { id: '1', label: 'in over a beat' },
        { id: '4', label: 'in over 4 beats' },
      ],
    }),
    space: choice({
      label: 'Space',
      group: 'Bed',
      hint: 'What holds it.',
      initial: 'hall',
      options: SPACES.map((id) => ({ id, label: id })),
    }),
    freeze: choice({
      label: 'Frozen',
      group: 'Bed',
      hint: 'Sealed holds what was taken; else what the track plays on stacks up in it.',
      initial: 'sealed',
      options: [
        { id: 'sealed', label: 'sealed' },
        { id: 'open', label: 'still taking in' },
      ],
    }),
    highCut: frequency({
      label: 'High cut',
      group: 'Bed',
      hint: 'Darker beds lie further back.',
      min: 800,
      max: 20_000,
      initial: 6000,
    }),
    level: gain({ label: 'Level', group: 'Bed', hint: 'How loud it lies under what comes.', initial: 0.5 }),
  },
  unavailableReason: (input) =>
    clipsIn({ ...input, range: { start: Math.max(0, input.range.start - MAX_TAKEN), end: input.range.start } }).length >
    0
      ? null
      : NOTHING,
  renderJob: (input, settings) => ({ job: frozen(input, settings), sounds: [] }),
  sound: (input, settings, rendered) => {
    const offset = takenFrames(input, settings);
    let peak = 0;
    for (const channel of rendered!)
      for (let i = offset; i < channel.length; i += 1) peak = Math.max(peak, Math.abs(channel[i]!));
    if (peak < SILENT) throw new Error(NOTHING);
    return { channels: rendered!.map((channel) => channel.map((x) => (x * FULL) / peak)) };
  },
  apply: (input, settings, sound) => {
    const { piece, track, range, newId } = input;
    const offsetSeconds = takenFrames(input, settings) / piece.sampleRate;
    const lengthSeconds = Math.min(secondsOf(piece, range), sound!.seconds - offsetSeconds);
    const fadeOutSeconds = Math.min(CUT_SECONDS, lengthSeconds / 4);
    const comes = secondsOf(piece, { start: range.start, end: range.start + Number(settings.word('comes')) });
    const name = `Bed of ${track.name}`;
    // What was taken before the stretch can be brought in by trimming the start of the clip.
    const clip = plainClip(newId(), name, sound!.hash, range.start, lengthSeconds, {
      offsetSeconds,
      gain: settings.number('level'),
      fadeInSeconds: Math.min(lengthSeconds - fadeOutSeconds, Math.max(MIN_FADE_SECONDS, comes)),
      fadeInShape: 'soft',
      fadeOutSeconds,
      fadeOutShape: 'soft',
    });
    return { tracks: [plainTrack(newId(), name, [clip])] };
  },
};

const captureBeat = (start: number, { word }: Settings): number => Math.max(0, start - Number(word('take')));
const takenFrames = ({ piece, range }: RecipeInput, settings: Settings): number =>
  sampleAt(piece, range.start) - sampleAt(piece, captureBeat(range.start, settings));

/**
 * The clips of a track, without effects, from a little before the range to its end, through a reverb that is frozen at
 * its beginning.
 */
function frozen({ piece, track, range }: RecipeInput, settings: Settings): PrintJob {
  const { params } = effectOf('reverb');
  const freeze = (beat: number, value: string): Point =>
    point(beat, toEngineNumber(params.freeze!, value, contextOf(piece)), 'hold');
  const slot = newSlot('bed', 'reverb', 'neutral', {
    space: settings.word('space'),
    decay: 8000,
    highCut: settings.number('highCut'),
    balance: 'mix',
    mix: 1,
  });
  const tempo = tempoLane(piece);
  const from = captureBeat(range.start, settings);
  const alone: Piece = {
    ...emptyPiece('bed', 'Bed'),
    sampleRate: piece.sampleRate,
    tempo: piece.tempo,
    lengthBeats: piece.lengthBeats,
    sounds: piece.sounds,
    tracks: [{ ...track, gain: 1, pan: 0, mute: false, solo: false, sends: [], chain: [slot] }],
    lanes: [
      ...(tempo ? [tempo] : []),
      {
        id: 'freeze',
        target: { kind: 'effect', channel: track.id, effect: 'bed', param: 'freeze' },
        unit: 'own',
        on: true,
        points: [freeze(0, 'off'), freeze(Math.max(from, range.start - FROZEN_BEFORE_BEATS), settings.word('freeze'))],
      },
    ],
  };
  return {
    plan: compilePlan(alone),
    fromSample: sampleAt(piece, from),
    toSample: sampleAt(piece, range.end),
    tail: { kind: 'seconds', seconds: 0 },
    listening: undefined,
  };
}
