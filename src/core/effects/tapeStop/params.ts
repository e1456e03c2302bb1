import { choice, figure, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';

export const DIRECTIONS = ['stop', 'start', 'bend'] as const;
export const THEN = ['silence', 'sound'] as const;

export const tapeStopParams = {
  ...holdParams,
  direction: choice({
    label: 'Direction',
    group: 'Tape',
    hint: 'Slows to a stop, comes up from one, or bends down and comes back.',
    initial: 'stop',
    options: [
      { id: 'stop', label: 'to a stop' },
      { id: 'start', label: 'from a stop' },
      { id: 'bend', label: 'down and back' },
    ],
  }),
  time: time({
    label: 'Time',
    group: 'Tape',
    hint: 'How long it takes to stop, to come up, or to bend and come back.',
    min: 20,
    initial: '1/2',
  }),
  curve: figure({
    label: 'Curve',
    group: 'Tape',
    hint: 'Below 0 it lingers near full speed, above 0 it falls at once and then slowly.',
    unit: 'ratio',
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  depth: ratio({
    label: 'Depth of the bend',
    group: 'Tape',
    hint: 'How much of its speed it loses in the middle of a bend: half is an octave.',
    min: 0.02,
    initial: 0.5,
  }),
  wow: ratio({ label: 'Wow', group: 'Tape', hint: 'How unevenly it turns meanwhile.', initial: 0 }),
  after: choice({
    label: 'After a stop',
    group: 'Tape',
    hint: 'What follows once it stands still and is held on.',
    initial: 'silence',
    options: [
      { id: 'silence', label: 'silence' },
      { id: 'sound', label: 'the sound' },
    ],
  }),
} satisfies Params;
