import { effectOf } from '../effects/catalogue';
import { newSlot } from './edits/chain';
import { readyField } from './edits/fields';
import { emptyPiece, newReturn, newTrack, type Piece, type Slot } from './piece';

/** A template for a new piece. */
export interface Template {
  readonly id: string;
  readonly name: string;
  /** Its content, in one line. */
  readonly says: string;
  /** @param id of the piece @param newId makes a unique id */
  make(id: string, newId: () => string): Piece;
}

const wet = { balance: 'mix', mix: 1 } as const;
/** Send level of -12 dB: audible, and no more. */
const TOUCH_OF_SPACE = 0.25;

/** Two returns, an echo and a space, and tracks of these names; those named in `sent` send to both. */
function withReturns(id: string, newId: () => string, names: readonly string[], sent: readonly string[]): Piece {
  const [echo, space] = [newId(), newId()];
  const sends = [echo, space].map((to) => ({ to, level: TOUCH_OF_SPACE, pre: false }));
  return {
    ...emptyPiece(id, 'New piece'),
    tracks: names.map((name) => newTrack(newId(), name, sent.includes(name) ? { sends } : {})),
    returns: [
      newReturn(echo, 'Echo', [newSlot(newId(), 'echo', 'callAcross', wet)]),
      newReturn(space, 'Space', [newSlot(newId(), 'reverb', 'openWater', wet)]),
    ],
  };
}

const limited = (piece: Piece, newId: () => string, before: readonly Slot[] = []): Piece => ({
  ...piece,
  main: { ...piece.main, chain: [...before, newSlot(newId(), 'limiter', 'neutral')] },
});

/** Four holds and a field on the main output, asleep until they are touched. */
function liveSet(id: string, newId: () => string): Piece {
  const piece = withReturns(id, newId, ['Drums', 'Bass', 'Chords', 'Voice'], ['Voice']);
  const holds = [
    ['stutter', 'deckRattle'],
    ['tapeStop', 'anchorDown'],
    ['backwards', 'undertow'],
    ['cloud', 'seaSmoke'],
  ] as const;
  const slots = holds.map(([effect, preset]) => newSlot(newId(), effect, preset));
  const sweep = effectOf('filter').fields![0]!;
  const { field, effect } = readyField(piece, 'main', 'filter', sweep, { field: newId(), slot: newId() });
  return { ...limited(piece, newId, [...slots, effect.slot]), fields: [field] };
}

export const TEMPLATES: readonly Template[] = [
  {
    id: 'empty',
    name: 'Empty',
    says: 'Nothing but the main output.',
    make: (id) => emptyPiece(id, 'New piece'),
  },
  {
    id: 'mix',
    name: 'Mix with two returns',
    says: 'Four tracks, an echo and a space to send to, a limiter at the end.',
    make: (id, newId) => limited(withReturns(id, newId, ['Drums', 'Bass', 'Keys', 'Voice'], ['Keys', 'Voice']), newId),
  },
  {
    id: 'live',
    name: 'Live set',
    says: 'Four tracks, two returns to throw into, and four holds and a field under your hands in Play.',
    make: liveSet,
  },
  {
    id: 'sound',
    name: 'Sound design',
    says: 'One source through a braid that takes turns between six treatments, and two long spaces to send it to.',
    make: (id, newId) => {
      const piece = withReturns(id, newId, [], []);
      const [bed, pipe] = [newId(), newId()];
      const braid = { ...newSlot(newId(), 'braid', 'harbourSteps'), on: false };
      return limited(
        {
          ...piece,
          tracks: [
            newTrack(newId(), 'Source', { sends: [{ to: bed, level: TOUCH_OF_SPACE, pre: false }], chain: [braid] }),
          ],
          returns: [
            newReturn(bed, 'Bed', [newSlot(newId(), 'reverb', 'seaFret', wet)]),
            newReturn(pipe, 'Long answer', [newSlot(newId(), 'echo', 'fogBank', wet)]),
          ],
        },
        newId,
      );
    },
  },
];
