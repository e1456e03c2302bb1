import { choice, figure, frequency, rate, ratio, time, toggle } from '../../params/make';
import type { Params } from '../../params/param';

const LONGEST_MS = 8000;

export const echoParams = {
  timeL: time({ label: 'Time', group: 'Time', hint: 'How long until the first repeat; the right side follows while linked.', initial: '1/8d', max: LONGEST_MS }),
  timeR: time({ label: 'Time right', group: 'Time', hint: 'The right side’s own time when the sides are apart.', initial: '1/8d', max: LONGEST_MS }),
  linked: toggle({ label: 'Sides linked', group: 'Time', hint: 'One time for both sides, or a time for each.', initial: true }),
  feedback: ratio({ label: 'Feedback', group: 'Time', hint: 'How much of each repeat returns: more gives more repeats; over 100 % they grow until the guard holds them.', initial: 0.45, max: 1.2, notches: [1] }),
  input: ratio({ label: 'Input', group: 'Time', hint: 'What enters the echo: ride it to throw single words in.', initial: 1 }),
  hold: toggle({ label: 'Hold', group: 'Time', hint: 'What is in the loop repeats for ever; nothing new enters.', initial: false }),
  change: choice({
    label: 'Time changes', group: 'Time', hint: 'Glide bends the pitch as tape does; crossfade keeps it.', initial: 'glide',
    options: [{ id: 'glide', label: 'glide' }, { id: 'crossfade', label: 'crossfade' }],
  }),
  routing: choice({
    label: 'Routing', group: 'Space', hint: 'Each side by itself, both as one, or repeats that swap sides.', initial: 'stereo',
    options: [{ id: 'stereo', label: 'stereo' }, { id: 'mono', label: 'mono' }, { id: 'pingpong', label: 'ping-pong' }],
  }),
  firstSide: choice({
    label: 'First side', group: 'Space', hint: 'Where ping-pong begins.', initial: 'left',
    options: [{ id: 'left', label: 'left' }, { id: 'right', label: 'right' }],
  }),
  sideOffset: figure({ label: 'Side offset', group: 'Space', hint: 'Moves one side later: right of centre the right, left of centre the left.', unit: 'ms', min: -50, max: 50, initial: 0, notches: [0], smoothingSeconds: 0.05 }),
  crossFeed: ratio({ label: 'Cross-feed', group: 'Space', hint: 'How much of each side’s repeats returns on the other side.', initial: 0 }),
  width: ratio({ label: 'Width', group: 'Space', hint: 'Spread of the repeats: 0 is mono, 100 % as made, 200 % wider.', max: 2, initial: 1, notches: [1] }),
  filter: choice({
    label: 'Loop filter', group: 'Tone', hint: 'Each repeat passes it once more: low-pass grows darker, high-pass thinner.', initial: 'off',
    options: [{ id: 'off', label: 'off' }, { id: 'low', label: 'low-pass' }, { id: 'band', label: 'band-pass' }, { id: 'high', label: 'high-pass' }],
  }),
  cutoff: frequency({ label: 'Cutoff', group: 'Tone', hint: 'Where the loop filter takes hold.', initial: 3200 }),
  resonance: ratio({ label: 'Resonance', group: 'Tone', hint: 'A ring at the cutoff, stronger with each repeat.', initial: 0.15 }),
  filterRate: rate({ label: 'Filter sway rate', group: 'Tone', hint: 'How fast the cutoff sways.', initial: 0.25 }),
  filterDepth: figure({ label: 'Filter sway', group: 'Tone', hint: 'How far the cutoff sways to each side.', unit: 'octaves', min: 0, max: 3, initial: 0 }),
  eqLow: figure({ label: 'Low', group: 'Tone', hint: 'Level of the repeats below 250 Hz.', unit: 'db', min: -18, max: 12, initial: 0, notches: [0] }),
  eqMid: figure({ label: 'Mid', group: 'Tone', hint: 'Level of the repeats around 1 kHz.', unit: 'db', min: -18, max: 12, initial: 0, notches: [0] }),
  eqHigh: figure({ label: 'High', group: 'Tone', hint: 'Level of the repeats above 4 kHz.', unit: 'db', min: -18, max: 12, initial: 0, notches: [0] }),
  driveKind: choice({
    label: 'Drive kind', group: 'Colour', hint: 'Tape rounds, tube leans and warms, transistor bites, hard clips.', initial: 'tape',
    options: [{ id: 'tape', label: 'tape' }, { id: 'tube', label: 'tube' }, { id: 'transistor', label: 'transistor' }, { id: 'hard', label: 'hard' }],
  }),
  drive: figure({ label: 'Drive', group: 'Colour', hint: 'How hard the loop is pushed; loud repeats are shaped, quiet ones keep their level.', unit: 'db', min: 0, max: 24, initial: 0, offAt: 'min' }),
  rateReduction: frequency({ label: 'Sample rate', group: 'Colour', hint: 'Coarser in time: lower folds the top into grain.', min: 500, max: 48000, initial: 48000, offAt: 'max' }),
  bitDepth: figure({ label: 'Bit depth', group: 'Colour', hint: 'Coarser in level: quiet tails crumble away.', unit: 'bits', min: 2, max: 24, initial: 24, offAt: 'max' }),
  diffusion: ratio({ label: 'Diffusion', group: 'Colour', hint: 'Smears each repeat a little more, towards a room.', initial: 0 }),
  diffusionSides: ratio({ label: 'Diffusion sides', group: 'Colour', hint: 'How differently left and right are smeared.', initial: 0.5 }),
  wowRate: rate({ label: 'Wow rate', group: 'Motion', hint: 'Slow waver of the pitch, as of an uneven reel.', min: 0.1, max: 4, initial: 0.6 }),
  wowDepth: figure({ label: 'Wow', group: 'Motion', hint: 'How far the pitch wavers slowly.', unit: 'percent', min: 0, max: 3, initial: 0, smoothingSeconds: 0.05, offAt: 'min' }),
  flutterRate: rate({ label: 'Flutter rate', group: 'Motion', hint: 'Quick shiver of the pitch.', min: 4, max: 20, initial: 7 }),
  flutterDepth: figure({ label: 'Flutter', group: 'Motion', hint: 'How far the pitch shivers.', unit: 'percent', min: 0, max: 1, initial: 0, smoothingSeconds: 0.05, offAt: 'min' }),
  duck: figure({ label: 'Ducking', group: 'Motion', hint: 'How far the repeats bow while the input sounds.', unit: 'db', min: 0, max: 36, initial: 0, offAt: 'min' }),
  duckThreshold: figure({ label: 'Duck above', group: 'Motion', hint: 'Input level from which the repeats bow.', unit: 'db', min: -60, max: 0, initial: -36 }),
  duckRelease: figure({ label: 'Duck release', group: 'Motion', hint: 'How soon they rise again after the input stops.', unit: 'ms', min: 20, max: 2000, initial: 250 }),
} satisfies Params;
