import type { ViewName } from '../../../data/address';

export interface HelpText {
  readonly title: string;
  /** What the view is for, in one sentence. */
  readonly purpose: string;
  readonly lines: readonly [string, string, string, string, string];
}

/** What every view is for. */
export const HELP: Readonly<Record<ViewName, HelpText>> = {
  piece: {
    title: 'Piece',
    purpose: 'All of it along time: tracks with their clips, the returns they send to, the main output.',
    lines: [
      'Tap a clip to trim, fade, treat or print it; hold and drag to move it.',
      'Drag on the ruler to choose a stretch: loop it, fill it, print it, make something of it.',
      'Tap the name of a track to bring its chain up; tap it again to rename, sort or remove it.',
      'Drop sound files anywhere: on a track they land where they are dropped.',
      'Tap the name of the piece to open another, begin a new one or undo a removal.',
    ],
  },
  chain: {
    title: 'Chain',
    purpose: 'What the sound of one channel goes through, from top to bottom. Dry is sand, wet is sea.',
    lines: [
      'Add an effect by what it is for: slapback, telephone, riser, dub.',
      'Tap an effect for its rails and its picture; both can be dragged.',
      'Drag away from a rail for fine; tap its value to type 1/8d, 250 ms or -6 dB.',
      'A braid splits the sound into strands that are treated side by side.',
      'Compare two settings as loud as each other, blind if you like.',
    ],
  },
  moves: {
    title: 'Moves',
    purpose: 'Parameters that move along the piece, each a lane that can be drawn, recorded and mended.',
    lines: [
      'Press moves, play, and drag any rail: what your hand did becomes a lane.',
      'Touch writes while you hold, latch until you stop, write over everything.',
      'Tap a lane to set a point; drag points, bend the lines between them.',
      'Throws open a send for the hits you pick, and shut it after them.',
      'LFOs, steps and the level of another track turn a rail around its lane.',
    ],
  },
  play: {
    title: 'Play',
    purpose: 'Effects in your hands: hold, sweep and throw on the beat, and keep what was played.',
    lines: [
      'Hold a stone: it begins on the next line of its grid and ends on one.',
      'Drag over the field to move two parameters at once; a second finger makes it fine.',
      'Pads throw a track into a return, freeze a space, mute, or go to a snapshot.',
      'Press moves first, and what you play is recorded as it sounded.',
      'Let go of all ends everything at once; so does Escape.',
    ],
  },
  shelf: {
    title: 'Shelf',
    purpose: 'What is kept: sounds, prints and files of this piece, blocks for any, and all pieces.',
    lines: [
      'A print is sound made with its effects; place it where it came from, or anywhere.',
      'Changed something since? Make a print again, and its clips follow.',
      'Write the piece, its tracks or prints to WAV or FLAC; the server goes on without you.',
      'Keep a chain as a block to use it in any piece.',
      'An archive holds a piece with its history and all its sounds.',
    ],
  },
};
