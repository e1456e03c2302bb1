import { LIBRARY } from '../../impulses/library';
import { MATERIAL_NAMES, type Material } from '../../impulses/materials';
import { choice, figure, frequency, ratio, time, toggle } from '../../params/make';
import type { ChoiceParam, NumberParam, Params } from '../../params/param';
import { TIME } from '../../params/taper';

const metres = (label: string, min: number, max: number, initial: number, hint: string): NumberParam =>
  figure({ label, group: 'Room', hint, unit: 'metres', min, max, initial });
const place = (label: string, initial: number, hint: string): NumberParam =>
  ratio({ label, group: 'Room', hint, min: 0.05, max: 0.95, initial });
const wall = (label: string, initial: Material): ChoiceParam =>
  choice({
    label,
    group: 'Walls',
    hint: 'What it is made of: hard stays bright and long, soft is short and dull.',
    initial,
    options: MATERIAL_NAMES.map((id) => ({ id, label: id })),
  });

export const convolverParams = {
  source: choice({
    label: 'From',
    group: 'Place',
    hint: 'A place of the library, a room you describe, or any sound of the piece.',
    initial: 'library',
    options: [
      { id: 'library', label: 'library' },
      { id: 'room', label: 'described room' },
      { id: 'own', label: 'own sound' },
    ],
  }),
  impulse: choice({
    label: 'Place',
    group: 'Place',
    hint: 'What the sound rings in.',
    initial: 'boatShed',
    options: LIBRARY.map(({ id, name }) => ({ id, label: name })),
  }),
  preDelay: time({
    label: 'Pre-delay',
    group: 'Place',
    hint: 'Silence before the place answers: keeps words in front of it.',
    min: 0,
    max: 500,
    initial: 0,
    smoothingSeconds: 0.05,
    ladder: ['1/8', '1/16', '1/32', '1/64'],
  }),
  decayScale: ratio({
    label: 'Decay',
    group: 'Place',
    hint: 'How long it rings: longer or shorter than the place itself does.',
    min: 0.25,
    max: 2,
    initial: 1,
    notches: [1],
  }),
  input: ratio({ label: 'Input', group: 'Place', hint: 'What enters: ride it to throw single words in.', initial: 1 }),
  width: ratio({
    label: 'Width',
    group: 'Place',
    hint: 'Spread of what rings: 0 is mono, 100 % as it is.',
    max: 2,
    initial: 1,
    notches: [1],
  }),
  start: figure({
    label: 'Start',
    group: 'Shape',
    hint: 'Leaves out the beginning: the first answers go, the wash stays.',
    unit: 'ms',
    min: 0,
    max: 2000,
    initial: 0,
    taper: TIME,
  }),
  length: figure({
    label: 'Length',
    group: 'Shape',
    hint: 'How much of it is heard: short is a burst that stops, long the whole place.',
    unit: 'ms',
    min: 20,
    max: 8000,
    initial: 8000,
    taper: TIME,
  }),
  fade: ratio({
    label: 'Fade',
    group: 'Shape',
    hint: 'How much of its end fades: none stops short, all dies away.',
    initial: 0.2,
  }),
  reverse: toggle({
    label: 'Backwards',
    group: 'Shape',
    hint: 'Swells into silence instead of falling.',
    initial: false,
  }),
  lowCut: frequency({
    label: 'Low cut',
    group: 'Shape',
    hint: 'Takes the lows of what rings: less mud under the sound.',
    min: 20,
    max: 1200,
    initial: 20,
    offAt: 'min',
  }),
  highCut: frequency({
    label: 'High cut',
    group: 'Shape',
    hint: 'Takes the highs of what rings: it stands farther behind the sound.',
    min: 800,
    max: 20_000,
    initial: 20_000,
    offAt: 'max',
  }),
  roomWidth: metres('Width', 2, 40, 7, 'From wall to wall: a wider room answers later from the sides.'),
  roomDepth: metres('Depth', 2, 60, 11, 'From front to back: a deeper room answers later from behind.'),
  roomHeight: metres('Height', 2, 25, 4, 'From floor to ceiling: a higher room is airier and rings longer.'),
  sourceX: place(
    'Sound across',
    0.32,
    'Where the sound stands between left and right wall: the nearer one answers sooner.',
  ),
  sourceY: place(
    'Sound along',
    0.25,
    'Where it stands between front and back: near you it is dry, far from you mostly room.',
  ),
  listenerX: place('You across', 0.55, 'Where you stand between left and right wall: the nearer one answers sooner.'),
  listenerY: place(
    'You along',
    0.72,
    'Where you stand between front and back: far from the sound you hear mostly room.',
  ),
  furniture: ratio({
    label: 'Furniture',
    group: 'Room',
    hint: 'Breaks reflections up: more is smoother, less is bare.',
    initial: 0.3,
  }),
  leftWall: wall('Left wall', 'brick'),
  rightWall: wall('Right wall', 'brick'),
  frontWall: wall('Front wall', 'panel'),
  backWall: wall('Back wall', 'plaster'),
  floor: wall('Floor', 'planks'),
  ceiling: wall('Ceiling', 'plaster'),
} satisfies Params;
