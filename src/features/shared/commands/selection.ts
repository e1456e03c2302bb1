import { clipEnd } from '../../../core/piece/clipEdges';
import { parseAddress, type ViewName } from '../../../data/address';
import { stretchActions } from '../../../data/stretchActions';
import { addClip, copyClip, moveClip, removeClip } from '../../../core/piece/edits/clips';
import {
  addEffect,
  copyEffect,
  copyOf,
  duplicateEffect,
  moveEffect,
  removeEffect,
} from '../../../core/piece/edits/chain';
import { moveTrack } from '../../../core/piece/edits/tracks';
import { chainOf, channelIds, channelName, findClip, findSlot, findTrack, slotsIn } from '../../../core/piece/find';
import { type Clip, type Piece, type Slot, type Track } from '../../../core/piece/piece';
import { effectOf } from '../../../core/effects/catalogue';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { duplicateTrackBelow, removeChannel } from '../channels/channelActions';
import {
  clearStretch,
  clipsOf,
  copyMoves,
  placeStretch,
  repeatStretch,
  type ChosenStretch,
  type CopiedStretch,
} from './chosenStretch';

/** The object of editing keys: in Chain the open effect; else a stretch, a clip, an effect or the track in view. */
type Selection =
  | ChosenStretch
  | { readonly kind: 'clip'; readonly clip: Clip; readonly track: Track }
  | { readonly kind: 'effect'; readonly channel: string; readonly slot: Slot }
  | { readonly kind: 'track'; readonly track: Track };

/** A copy of what was cut or copied: it can be pasted after the original was removed. */
type Copied =
  | { readonly kind: 'clip'; readonly clip: Clip }
  | ({ readonly kind: 'stretch' } & CopiedStretch)
  | { readonly kind: 'moves' }
  | { readonly kind: 'effect'; readonly channel: string; readonly slot: Slot };

let copied: Copied | null = null;

/** Whether something was cut or copied that can be pasted. */
export const hasCopied = (): boolean => copied !== null;

/** Name of what was cut or copied last and can be pasted onto a track; null where there is nothing of the kind. */
export function copiedForTrack(): string | null {
  if (copied?.kind === 'clip') return `“${copied.clip.name}”`;
  return copied?.kind === 'stretch' ? 'The copied stretch' : null;
}

/** Moves were copied, by a key or by their button: they are pasted next. */
export const keepCopiedMoves = (): void => void (copied = { kind: 'moves' });

const isIn = (view: ViewName): boolean => parseAddress(location.pathname)?.view === view;

const pieceNow = (): Piece => useOpenPiece.getState().piece!;
const { run, say } = useOpenPiece.getState();

function selection(): Selection | null {
  const piece = pieceNow();
  const { clip: clipId, slot: slotId, channel, range, rangeInFront } = useView.getState();
  const track = findTrack(piece, channel);
  const slot = slotId ? findSlot(piece, channel, slotId) : undefined;
  if (slot && isIn('chain')) return { kind: 'effect', channel, slot };
  if (range && (isIn('moves') || (isIn('piece') && rangeInFront)))
    return { kind: 'stretch', moves: isIn('moves'), ...range, track };
  const found = clipId ? findClip(piece, clipId) : undefined;
  if (found) return { kind: 'clip', ...found };
  if (slot) return { kind: 'effect', channel, slot };
  return track ? { kind: 'track', track } : null;
}

const NOTHING = 'Nothing is chosen: tap a clip, an effect or a track first.';

const isAtHead = ({ id }: Track): boolean =>
  document.activeElement?.closest(`[data-testid="head of ${CSS.escape(id)}"]`) != null;

export function removeSelection(): void {
  const chosen = selection();
  if (!chosen) return say(NOTHING);
  const { undo } = useOpenPiece.getState();
  const offerUndo = (name: string): void => say(`“${name}” was removed.`, { label: 'Undo', act: undo });
  switch (chosen.kind) {
    case 'stretch':
      return clearStretch(chosen);
    case 'clip':
      if (!run(removeClip, { clip: chosen.clip.id })) return;
      useView.setState({ clip: null });
      return offerUndo(chosen.clip.name);
    case 'effect':
      if (!run(removeEffect, { channel: chosen.channel, slot: chosen.slot.id })) return;
      useView.setState({ slot: null });
      return offerUndo(effectOf(chosen.slot.effect).name);
    case 'track':
      // A track is always in view: it is the object only where the focus is on its head.
      if (isAtHead(chosen.track)) removeChannel(chosen.track.id);
      else say(NOTHING);
  }
}

function copyStretch(chosen: ChosenStretch): boolean {
  if (chosen.moves) return copyMoves();
  const clips = clipsOf(chosen);
  if (!clips) return false;
  copied = { kind: 'stretch', clips, start: chosen.start, end: chosen.end };
  say('The stretch is copied. Paste puts it at the playhead, on the track in view.');
  return true;
}

/** @returns false when there was nothing that can be copied */
export function copySelection(): boolean {
  const chosen = selection();
  switch (chosen?.kind) {
    case 'stretch':
      return copyStretch(chosen);
    case 'clip':
      copied = { kind: 'clip', clip: chosen.clip };
      say(`“${chosen.clip.name}” is copied. Paste puts it at the playhead.`);
      return true;
    case 'effect':
      copied = chosen;
      say(`“${effectOf(chosen.slot.effect).name}” is copied. Paste puts it at the end of the chain.`);
      return true;
    default:
      say('A clip, a stretch or an effect can be copied: choose one. A whole track is duplicated.');
      return false;
  }
}

export function cutSelection(): void {
  if (copySelection()) removeSelection();
}

/** A clip goes to the playhead on the track in view, an effect to the end of the chain in view. */
export function paste(beat: number): void {
  const piece = pieceNow();
  const { channel } = useView.getState();
  if (!copied) return say('Nothing has been copied yet.');
  if (copied.kind === 'effect') return pasteEffect(piece, channel, copied);
  if (copied.kind === 'moves') {
    if (!stretchActions()?.paste()) say('Moves are pasted in Moves, where a stretch of a lane is chosen.');
    return;
  }
  const track = findTrack(piece, channel);
  if (!track) return say(`${channelName(piece, channel)} has no clips. Choose a track, then paste.`);
  if (copied.kind === 'stretch')
    return void placeStretch(track, copied, Math.round(beat * 1e4) / 1e4 - copied.start, 'Paste a stretch on');
  const clip = { ...copied.clip, id: newId(), start: Math.round(beat * 1e4) / 1e4 };
  if (!piece.sounds[clip.sound]) return say('The sound of that clip is not in this piece.');
  if (run(addClip, { track: track.id, clip })) useView.setState({ clip: clip.id });
}

/** A copy of an effect that is still there brings its links along; one of another piece needs its own sound to be here. */
function pasteEffect(piece: Piece, to: string, { channel, slot }: Extract<Copied, { kind: 'effect' }>): void {
  const id = newId();
  const done = findSlot(piece, channel, slot.id)
    ? run(copyEffect, { channel, slot: slot.id, to, id })
    : pasteForeign(piece, to, copyOf(slot, id));
  if (done) useView.setState({ slot: id });
}

function pasteForeign(piece: Piece, channel: string, slot: Slot): boolean {
  const all = slotsIn([slot]);
  if (all.some(({ sound }) => sound && !piece.sounds[sound])) {
    say('The sound that it works with is not in this piece.');
    return false;
  }
  if (all.some(({ side }) => side && !findTrack(piece, side))) {
    say('The track that it listens to is not in this piece.');
    return false;
  }
  return run(addEffect, { channel, slot, at: chainOf(piece, channel).length });
}

/** Puts a copy right after the original: of a clip at its end, of an effect behind it, of a track below it. */
export function duplicateSelection(): void {
  const piece = pieceNow();
  const chosen = selection();
  if (!chosen) return say(NOTHING);
  const id = newId();
  switch (chosen.kind) {
    case 'stretch':
      return repeatStretch(chosen);
    case 'clip': {
      const { clip, track } = chosen;
      if (run(copyClip, { clip: clip.id, start: clipEnd(piece, clip), track: track.id, id }))
        useView.setState({ clip: id });
      return;
    }
    case 'effect':
      if (run(duplicateEffect, { channel: chosen.channel, slot: chosen.slot.id, id })) useView.setState({ slot: id });
      return;
    case 'track':
      duplicateTrackBelow(chosen.track.id);
  }
}

/** Chooses the clip after or before the chosen one on its track; the first of the track in view where none is. */
export function chooseClip(direction: 1 | -1): void {
  const chosen = selection();
  const track = chosen?.kind === 'effect' ? findTrack(pieceNow(), chosen.channel) : chosen?.track;
  const clips = [...(track?.clips ?? [])].sort((a, b) => a.start - b.start);
  const at = chosen?.kind === 'clip' ? clips.findIndex(({ id }) => id === chosen.clip.id) + direction : 0;
  const next = clips[Math.max(0, Math.min(clips.length - 1, at))];
  if (!next) return say('There is no clip on this track.');
  useView.setState({ clip: next.id, range: null });
  document.querySelector<HTMLElement>(`[data-testid="clip ${CSS.escape(next.id)}"]`)?.focus();
}

/** Puts the track in view a place higher or lower; in Chain the open effect. Nothing moves past the ends. */
export function moveSelection(direction: 1 | -1): void {
  const piece = pieceNow();
  const { channel, slot } = useView.getState();
  const within = (at: number, count: number): boolean => at >= 0 && at < count;
  if (isIn('chain')) {
    const chain = chainOf(piece, channel);
    const at = chain.findIndex(({ id }) => id === slot);
    if (at < 0) return say('No effect is open: tap one first.');
    if (within(at + direction, chain.length)) run(moveEffect, { channel, slot: slot!, to: at + direction });
    return;
  }
  const at = piece.tracks.findIndex(({ id }) => id === channel);
  if (at < 0) return say('Only tracks have an order of their own. Choose a track.');
  if (within(at + direction, piece.tracks.length)) run(moveTrack, { track: channel, to: at + direction });
}

/** Moves the chosen clip along time. */
export function nudgeClip(beats: number): void {
  const chosen = selection();
  if (chosen?.kind !== 'clip') return say('No clip is chosen: tap one first.');
  run(moveClip, { clip: chosen.clip.id, start: Math.max(0, chosen.clip.start + beats) });
}

/** Shows the channel below or above the one in view. */
export function chooseChannel(direction: 1 | -1): void {
  const piece = pieceNow();
  const ids = channelIds(piece);
  const at = ids.indexOf(useView.getState().channel) + direction;
  const next = ids[Math.max(0, Math.min(ids.length - 1, at))]!;
  useView.setState({ channel: next, slot: null, clip: null });
}

/** Opens the effect below or above the open one in its chain; the first or the last where none is. */
export function chooseEffect(direction: 1 | -1): void {
  const { channel, slot } = useView.getState();
  const chain = chainOf(pieceNow(), channel);
  const open = chain.findIndex(({ id }) => id === slot);
  const at = open < 0 && direction < 0 ? chain.length - 1 : open + direction;
  const next = chain[Math.max(0, Math.min(chain.length - 1, at))];
  if (!next) return say(`${channelName(pieceNow(), channel)} has no effects yet.`);
  useView.setState({ slot: next.id });
  document.querySelector<HTMLElement>(`[data-testid="effect ${CSS.escape(next.id)}"] [role=button]`)?.focus();
}
