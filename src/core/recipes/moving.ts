import { choice, figure, frequency, gain, ratio } from '../params/make';
import { newSlot } from '../piece/edits/chain';
import { clipsIn, laneOn, rampOverRange, type Recipe } from './recipe';
import { plainTrack } from '../piece/plain';

const BEND = figure({
  label: 'Curve',
  group: 'Way',
  hint: 'Evenly in the middle; to the right it waits and then rushes.',
  unit: 'pan',
  ends: ['at once', 'late'],
  min: -1,
  max: 1,
  initial: 0.3,
  notches: [0],
});

/** A filter sweep over a range, bypassed before and after it. */
export const filterSweep: Recipe = {
  id: 'sweep',
  name: 'Filter sweep',
  purpose: 'A filter that closes or opens over the stretch, and lets go at its end.',
  searchWords: 'filter automation build lowpass transition',
  params: {
    way: choice({
      label: 'Way',
      group: 'Way',
      hint: 'What is taken away over the stretch, or given back.',
      initial: 'lowGoes',
      options: [
        { id: 'lowGoes', label: 'thins out' },
        { id: 'highGoes', label: 'darkens' },
        { id: 'highComes', label: 'opens up' },
        { id: 'lowComes', label: 'fills up' },
      ],
    }),
    farHz: frequency({
      label: 'Farthest',
      group: 'Way',
      hint: 'How far it goes: where the filter stands when least is left.',
      min: 60,
      max: 12_000,
      initial: 1600,
    }),
    resonance: ratio({
      label: 'Resonance',
      group: 'Way',
      hint: 'A ring at the edge that brings the sweep out.',
      initial: 0.25,
    }),
    bend: BEND,
  },
  unavailableReason: () => null,
  apply: ({ track, range, newId }, { number, word }) => {
    const way = word('way');
    const high = way.startsWith('low');
    const open = high ? 20 : 20_000;
    const id = newId();
    const [from, to] = way.endsWith('Goes') ? [open, number('farHz')] : [number('farHz'), open];
    return {
      slots: [
        {
          channel: track.id,
          slot: newSlot(id, 'filter', 'neutral', {
            kind: high ? 'high' : 'low',
            slope: '24',
            cutoff: open,
            resonance: number('resonance'),
          }),
        },
      ],
      lanes: [laneOn(newId(), track.id, id, 'cutoff', rampOverRange(range, open, from, to, number('bend')))],
    };
  },
};

/** Sample rate and resolution that fall over a range. */
export const degrade: Recipe = {
  id: 'degrade',
  name: 'Wears away',
  purpose: 'The sound loses samples and heights over the stretch, as if copied again and again.',
  searchWords: 'lofi bitcrush vinyl',
  params: {
    rate: frequency({
      label: 'Sample rate at the end',
      group: 'Way',
      hint: 'How seldom the wave is looked at in the end.',
      min: 400,
      max: 40_000,
      initial: 3200,
    }),
    bits: figure({
      label: 'Bits at the end',
      group: 'Way',
      hint: 'How many heights are left in the end.',
      unit: 'bits',
      min: 1,
      max: 16,
      initial: 6,
    }),
    wobble: ratio({
      label: 'Jitter',
      group: 'Way',
      hint: 'Unsteady, so that it rustles rather than whistles.',
      initial: 0.25,
    }),
    bend: BEND,
  },
  unavailableReason: () => null,
  apply: ({ track, range, newId }, { number }) => {
    const id = newId();
    return {
      slots: [
        {
          channel: track.id,
          slot: newSlot(id, 'crush', 'neutral', { rate: 48_000, bits: 16, wobble: number('wobble') }),
        },
      ],
      lanes: [
        laneOn(newId(), track.id, id, 'rate', rampOverRange(range, 48_000, 48_000, number('rate'), number('bend'))),
        laneOn(newId(), track.id, id, 'bits', rampOverRange(range, 16, 16, number('bits'), number('bend'))),
      ],
    };
  },
};

/** A cluster of taps before a reverb that fades in over a range. */
export const bloom: Recipe = {
  id: 'bloom',
  name: 'Bloom',
  purpose: 'Taps before a long reverb: the track opens into space over the stretch.',
  searchWords: 'reverb swell ambience',
  params: {
    amount: ratio({
      label: 'At the full end',
      group: 'Way',
      hint: 'How much of it is heard when it has come up.',
      initial: 0.6,
    }),
    decay: figure({
      label: 'Decay',
      group: 'Way',
      hint: 'How long the space rings.',
      unit: 'ms',
      min: 500,
      max: 20_000,
      taper: { kind: 'log' },
      initial: 5000,
    }),
    bend: BEND,
  },
  unavailableReason: () => null,
  apply: ({ track, range, newId }, { number }) => {
    const [taps, space] = [newId(), newId()];
    const reverb = newSlot(space, 'reverb', 'neutral', {
      space: 'hall',
      decay: number('decay'),
      balance: 'mix',
      mix: 0,
    });
    return {
      slots: [
        { channel: track.id, slot: newSlot(taps, 'taps', 'spray', { balance: 'mix', mix: 0 }) },
        { channel: track.id, slot: reverb },
      ],
      lanes: [
        laneOn(newId(), track.id, taps, 'mix', rampOverRange(range, 0, 0, 0.5 * number('amount'), number('bend'))),
        laneOn(newId(), track.id, space, 'mix', rampOverRange(range, 0, 0, number('amount'), number('bend'))),
      ],
    };
  },
};

/** The same part an octave away, on a track of its own. */
export const octaveLayer: Recipe = {
  id: 'octave',
  name: 'Octave layer',
  purpose: 'The part of the stretch an octave down or up under itself, its throat kept or moved.',
  searchWords: 'pitch shimmer double layer',
  params: {
    semitones: figure({
      label: 'Semitones',
      group: 'Layer',
      hint: 'How far from the part itself.',
      unit: 'semitones',
      min: -24,
      max: 24,
      initial: -12,
      notches: [-12, -7, -5, 5, 7, 12],
    }),
    formantShift: figure({
      label: 'Formants',
      group: 'Layer',
      hint: 'A smaller or larger throat for the layer.',
      unit: 'semitones',
      min: -12,
      max: 12,
      initial: 0,
      notches: [0],
    }),
    drive: figure({
      label: 'Drive',
      group: 'Layer',
      hint: 'Warms the layer, so that it stands on its own.',
      unit: 'db',
      min: 0,
      max: 30,
      initial: 0,
      offAt: 'min',
    }),
    level: gain({ label: 'Level', group: 'Layer', hint: 'Of the layer against the part.', initial: 0.5 }),
  },
  unavailableReason: (input) => (clipsIn(input).length === 0 ? 'No clip of this track lies in the stretch.' : null),
  apply: (input, { number }) => {
    const { track, newId } = input;
    const chain = [
      newSlot(newId(), 'pitch', 'neutral', { semitones: number('semitones'), formantShift: number('formantShift') }),
    ];
    if (number('drive') > 0)
      chain.push(newSlot(newId(), 'drive', 'neutral', { drive: number('drive'), curve: 'tube' }));
    const layer = plainTrack(
      newId(),
      `${track.name}, layer`,
      clipsIn(input).map((clip) => ({ ...clip, id: newId() })),
      chain,
      track.gain * number('level'),
    );
    return { tracks: [{ ...layer, pan: track.pan }] };
  },
};
