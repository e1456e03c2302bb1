import { clipOf, echoSlot, laneOf, scene, soundOf } from '../testing';
import type { Modulator } from '../../automation/modulator';
import { newReturn, type Piece, type Target } from '../piece';
import { newSlot } from './chain';

export const PAN: Target = { kind: 'channel', channel: 't0', param: 'pan' };
export const FEEDBACK: Target = { kind: 'effect', channel: 't0', effect: 'e', param: 'feedback' };
export const lfo: Modulator = {
  id: 'm',
  name: 'Tide',
  kind: 'lfo',
  rate: 1,
  shape: 'sine',
  phase: 0,
  roll: 1,
};

/** Two tracks and a return, with one of everything that a piece can hold. */
export const everything: Piece = (() => {
  const { piece: plain } = scene(
    [soundOf(8, () => 0.1)],
    [
      {
        clips: [
          clipOf('a', 0, 4, 2, { offsetSeconds: 1 }),
          clipOf('b', 0, 8, 2, { offsetSeconds: 3 }),
          clipOf('c', 0, 10, 2),
        ],
        chain: [echoSlot('e', {}), newSlot('c1', 'compressor', 'neutral')],
        sends: [{ to: 'r', level: 0.5, pre: false }],
      },
      { clips: [], chain: [newSlot('bd', 'braid', 'neutral')] },
    ],
    { lengthBeats: 32 },
  );
  return {
    ...plain,
    returns: [newReturn('r', 'Space')],
    lanes: [
      {
        ...laneOf('t0', null, 'pan', [
          [0, -1],
          [8, 1],
        ]),
        id: 'pan',
      },
      {
        ...laneOf('t0', 'e', 'feedback', [
          [0, 0.2],
          [8, 0.8],
        ]),
        id: 'fb',
      },
    ],
    modulators: [lfo],
    links: [{ id: 'l', modulator: 'm', target: FEEDBACK, depth: 0.5 }],
    sections: [{ id: 's', name: 'Ebb', beat: 8 }],
    controls: [{ id: 'k', number: 20, midiChannel: 0, target: PAN }],
    snapshots: [{ id: 'n', name: 'Low water', channel: null, values: [{ target: PAN, value: 0.5 }] }],
  };
})();
