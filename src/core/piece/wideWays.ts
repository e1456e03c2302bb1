import { newSlot } from './edits/chain';
import type { Slot } from './piece';

export interface WideWay {
  readonly id: string;
  readonly name: string;
  /** Its use and its drawback, in one line. */
  readonly purpose: string;
  /** The effects that are put after the chain. @param id prefix of their ids, at most 50 letters */
  readonly slots: (id: string) => Slot[];
}

/** Ways to make a mono part wide, each set up to be heard at once. */
export const WIDE_WAYS: readonly WideWay[] = [
  {
    id: 'space',
    name: 'Stereo reverb',
    purpose: 'Puts it into a space; the part itself stays in the middle.',
    slots: (id) => [newSlot(`${id}-0`, 'reverb', 'brassSheet', { mix: 0.3 })],
  },
  {
    id: 'offsets',
    name: 'Two offset echoes',
    purpose: 'One close repeat to each side, at different times.',
    slots: (id) => [
      newSlot(`${id}-0`, 'echo', 'doubledPlank', {
        linked: false,
        timeL: 13,
        timeR: 23,
        feedback: 0,
        routing: 'stereo',
        width: 1.5,
        mix: 0.4,
      }),
    ],
  },
  {
    id: 'sideDelay',
    name: 'Side delay',
    purpose: 'One side a few milliseconds later: wide, and hollow in mono.',
    slots: (id) => [newSlot(`${id}-0`, 'sideDelay', 'widePlank')],
  },
  {
    id: 'autoPan',
    name: 'Auto-pan',
    purpose: 'Wanders from side to side in time.',
    slots: (id) => [newSlot(`${id}-0`, 'tremolo', 'sideToSide')],
  },
  {
    id: 'onePhaser',
    name: 'Phaser on one side',
    purpose: 'Notches travel through the right side alone.',
    slots: (id) => [newSlot(`${id}-0`, 'phaser', 'oneShore')],
  },
  {
    id: 'combs',
    name: 'Complementary combs',
    purpose: 'Each side has what the other lacks: whole in mono.',
    slots: (id) => [newSlot(`${id}-0`, 'widener', 'spreadNet')],
  },
  {
    id: 'dryWet',
    name: 'Dry left, wet right',
    purpose: 'The part at one side, its space at the other.',
    slots: (id) => [newSlot(`${id}-0`, 'braid', 'dryLeftWetRight')],
  },
];
