import { makeModulator } from '../../automation/modulator';
import fc from 'fast-check';
import { between } from '../../testing';
import { effectOf } from '../../effects/catalogue';
import { paramAtPosition, fromEngineNumber } from '../../params/resolve';
import { applyEdit, EditRefused, type Edit, type Edited } from '../edit';
import { repeatClip, setClip, splitClip, trimClip } from './clipShape';
import { mapControl } from './controls';
import { addStrand, removeStrand } from './braid';
import {
  addEffect,
  choosePreset,
  copyEffect,
  duplicateEffect,
  moveEffect,
  newSlot,
  removeEffect,
  replaceEffect,
  setParams,
} from './chain';
import { addTrack, removeTrack, renamePiece, setChannelParam, setLoop, setSwitch, setTempo } from './channels';
import { addClip, moveClip, removeClip } from './clips';
import { clearLanes, layMoves, pointLane, recordMove, setLanesTravel, throwHits } from './lanes';
import { addField, leaveValues, removeField, setField } from './fields';
import { addLink, removeLink, setLink, setModulator } from './links';
import { dropSnapshot, keepSnapshot, recallSnapshot } from './snapshots';
import { morphLanes, takeSnapshot } from '../moves/snapshot';
import { addReturn, copySends, removeReturn, removeSend, setSend } from './sends';
import { emptyPiece, type Piece, type Target } from '../piece';

const hash = '0'.repeat(64);
const clip = {
  id: 'c',
  name: 'Clip',
  sound: hash,
  start: 4,
  offsetSeconds: 0,
  lengthSeconds: 2,
  gain: 1,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  print: null,
};
const track = (id: string): Piece['tracks'][number] => ({
  id,
  name: `Track ${id}`,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  clips: [],
  chain: [newSlot(`${id}-echo`, 'echo', 'callAcross'), newSlot(`${id}-braid`, 'braid', 'bloom')],
});
const made = (id: string): Piece['returns'][number] => ({
  id,
  name: `Return ${id}`,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  chain: [],
});
/** Two tracks, each with an echo and a braid, and two returns. */
export const start: Piece = {
  ...emptyPiece('p', 'Piece'),
  sounds: { [hash]: { name: 's', frames: 96_000, sampleRate: 48_000, channels: 1 } },
  tracks: [track('a'), track('b')],
  returns: [made('r0'), made('r1')],
};

export const modulator = { name: 'LFO', rate: '1/4', roll: 0 };

/** An edit with its arguments, to be done to a piece. */
export type Doing = (piece: Piece) => Edited;
export const doing =
  <Args>(edit: Edit<Args>, args: Args): Doing =>
  (piece) =>
    applyEdit(piece, edit, args);
const { params } = effectOf('echo');

/** Any edit a person could do, with any arguments; what it names may be gone by then. */
export const anyEdit: fc.Arbitrary<Doing> = fc
  .record({
    kind: fc.nat(52),
    id: fc.constantFrom('a', 'b', 'n1', 'n2'),
    share: between(0, 1),
    flag: fc.boolean(),
    param: fc.constantFrom(...Object.keys(params)),
    n: fc.nat(40),
  })
  .map(({ kind, id, share, flag, param, n }) => {
    const slot = `${id}-echo`;
    const target: Target = { kind: 'effect', channel: id, effect: slot, param };
    const value = fromEngineNumber(params[param]!, paramAtPosition(params[param]!, share));
    const points = [{ beat: n, value: share, shape: 'curve' as const, bend: share }];
    const all = [
      doing(renamePiece, { name: `Piece ${n}` }),
      doing(setTempo, { bpm: 40 + n }),
      doing(setLoop, { on: flag, start: n, end: n + 4 }),
      doing(addTrack, { track: track(`n${n % 3}`), sounds: {} }),
      doing(removeTrack, { track: id }),
      doing(setChannelParam, { channel: id, param: flag ? 'gain' : 'pan', value: share }),
      doing(setSwitch, { track: id, which: flag ? 'mute' : 'solo', on: flag }),
      doing(addClip, { track: id, clip: { ...clip, id: `c${n}` } }),
      doing(moveClip, { clip: `c${n}`, start: n }),
      doing(removeClip, { clip: `c${n}` }),
      doing(addEffect, { channel: id, slot: newSlot(`${id}-${n}`, 'echo', 'neutral'), at: 0 }),
      doing(removeEffect, { channel: id, slot }),
      doing(moveEffect, { channel: id, slot, to: n % 3 }),
      doing(setParams, { channel: id, slot, values: { [param]: value } }),
      doing(recordMove, { lane: { id: `l${n % 4}`, target, unit: 'own', on: true, points }, how: 'ride' }),
      doing(choosePreset, { channel: id, slot, preset: 'fogBank' }),
      doing(addEffect, {
        channel: id,
        slot: newSlot(`${id}-in${n}`, flag ? 'braid' : 'echo', 'neutral'),
        at: 0,
        inside: { slot: `${id}-braid`, strand: flag ? null : (n % 3) + 1 },
      }),
      doing(addStrand, { channel: id, slot: `${id}-braid`, called: 'New' }),
      doing(removeStrand, { channel: id, slot: `${id}-braid`, place: (n % 3) + 1 }),
      doing(duplicateEffect, { channel: id, slot: `${id}-braid`, id: `dup${n}-${share}`.slice(0, 40) }),
      doing(copyEffect, {
        channel: id,
        slot: `${id}-braid`,
        to: flag ? 'r0' : 'b',
        id: `copy${n}-${share}`.slice(0, 40),
      }),
      doing(replaceEffect, { channel: id, slot: `${id}-braid`, effect: 'reverb', preset: 'neutral' }),
      doing(addReturn, { made: made(`r${n}-${share}`.slice(0, 40)) }),
      doing(removeReturn, { id: `r${n % 2}` }),
      doing(setSend, { channel: flag ? id : `r${n % 2}`, to: `r${(n >> 1) % 2}`, level: share }),
      doing(removeSend, { channel: id, to: `r${n % 2}` }),
      doing(copySends, { from: id, to: ['a', 'r0', 'r1'] }),
      doing(addLink, {
        modulator: makeModulator(n % 2 ? 'lfo' : 'macro', { ...modulator, id: `m${n % 3}` }),
        link: {
          id: `k${n}`,
          modulator: `m${n % 3}`,
          target: flag ? target : { kind: 'send', channel: id, to: `r${n % 2}` },
          depth: share,
        },
      }),
      doing(removeLink, { link: `k${n}` }),
      doing(setModulator, { modulator: `m${n % 3}`, change: { kind: 'steps', steps: [share, -share] } }),
      doing(recordMove, {
        lane: {
          id: `x${n}`,
          target: { kind: 'macro', macro: `m${n % 3}` },
          unit: 'own',
          on: true,
          points,
        },
        how: 'ride',
      }),
      doing(throwHits, {
        hits: 1,
        lane: {
          id: `t${n}`,
          target: { kind: 'send', channel: id, to: `r${n % 2}` },
          unit: 'own',
          on: true,
          points,
        },
      }),
      doing(moveClip, { clip: `c${n}`, start: n, track: flag ? 'a' : 'b' }),
      (piece: Piece) =>
        doing(setLanesTravel, { lanes: piece.lanes.slice(0, 3).map((lane) => lane.id), travels: flag })(piece),
      (piece: Piece) =>
        doing(keepSnapshot, {
          snapshot: takeSnapshot(piece, flag ? id : null, n, `s${n % 4}-${share}`.slice(0, 40), 'Kept'),
        })(piece),
      (piece: Piece) => doing(recallSnapshot, { id: piece.snapshots[0]?.id ?? '' })(piece),
      (piece: Piece) =>
        doing(layMoves, {
          lanes: piece.snapshots[0]
            ? morphLanes(piece, piece.snapshots[0], n, n % 5, (i) => `morph${n}-${i}-${share}`.slice(0, 60))
            : [],
          what: 'Morph',
        })(piece),
      (piece: Piece) =>
        doing(pointLane, {
          lane: piece.lanes[n % Math.max(1, piece.lanes.length)]?.id ?? '',
          to: { kind: 'channel', channel: id, param: flag ? 'pan' : 'mute' },
        })(piece),
      doing(recordMove, {
        lane: {
          id: `tempo${n}`,
          target: { kind: 'tempo' },
          unit: 'own',
          on: true,
          points: [{ beat: n, value: 40 + 200 * share, shape: flag ? 'line' : 'hold', bend: 0 }],
        },
        how: 'draw',
      }),
      doing(dropSnapshot, { id: `s${n % 4}` }),
      doing(mapControl, {
        control: {
          id: `c${n}`,
          number: n,
          midiChannel: 0,
          target: flag ? target : { kind: 'macro', macro: `m${n % 3}` },
        },
      }),
      doing(trimClip, { clip: `c${n}`, side: flag ? 'start' : 'end', beat: 40 * share }),
      doing(splitClip, { clip: `c${n}`, beat: 40 * share, id: `s${n}-${share}`.slice(0, 40) }),
      doing(setClip, { clip: `c${n}`, change: { reversed: flag, fadeInSeconds: share } }),
      doing(repeatClip, { clip: `c${n}`, every: 4, ids: [`p${n}-${share}`.slice(0, 40)] }),
      doing(clearLanes, { channel: n < 5 ? null : id }),
      doing(addLink, {
        modulator: makeModulator(n % 2 ? 'lfo' : 'macro', { ...modulator, id: `m${n % 3}` }),
        link: {
          id: `q${n}`,
          modulator: `m${n % 3}`,
          target: { kind: 'macro', macro: `m${(n >> 2) % 3}` },
          depth: share,
          curve: -share,
        },
      }),
      doing(setModulator, { modulator: `m${n % 3}`, change: { kind: flag ? 'macro' : 'lfo' } }),
      doing(setLink, { link: `k${n}`, curve: share, range: flag ? null : { low: 1 - share, high: share } }),
      doing(addField, {
        field: {
          id: `f${n % 4}`,
          name: `Field ${n}`,
          across: { target, from: share, to: 1 - share },
          up: { target: { kind: 'macro', macro: `m${n % 3}` }, from: 0, to: 1 },
          lift: flag ? 'glide' : 'stay',
          liftBeats: 1,
          grid: '1/8',
        },
      }),
      doing(addField, {
        field: {
          id: `f${n % 4}`,
          name: 'With an effect',
          across: {
            target: { kind: 'effect', channel: id, effect: `${id}-f${n}`, param: 'cutoff' },
            from: 0,
            to: share,
          },
          up: { target: { kind: 'send', channel: id, to: `r${n % 2}` }, from: 0, to: 1 },
          lift: 'spring',
          liftBeats: share,
          grid: 'free',
        },
        effect: { channel: id, slot: newSlot(`${id}-f${n}`, 'filter', 'neutral') },
      }),
      doing(setField, { field: `f${n % 4}`, change: flag ? { name: 'Renamed' } : { liftBeats: 2 } }),
      flag
        ? doing(removeField, { field: `f${n % 4}` })
        : doing(leaveValues, { name: 'a field', values: [{ target, value }] }),
    ];
    return all[kind]!;
  });

/** What edits leave of a piece; those that are refused change nothing. */
export const after = (edits: readonly Doing[]): Piece =>
  edits.reduce((piece, edit) => {
    try {
      return edit(piece).piece;
    } catch (error) {
      if (error instanceof EditRefused) return piece;
      throw error;
    }
  }, start);
