import { newSlot } from '../../core/piece/edits/chain';
import { newReturn, type Piece } from '../../core/piece/piece';
import { clipOf, scene, soundOf } from '../../core/piece/testing';
import type { Block } from '../../core/piece/block';
import { ownPresets } from '../shared/blocks/ownPresets';
import { targetsOf } from '../studio/targets';
import { freezePads, mutePads, snapshotNote, strandPads, throwPads } from './pads';
import { presetOf } from './presets';

const piece: Piece = (() => {
  const strands = [
    { place: 1, name: 'As it is', chain: [] },
    { place: 2, name: 'Far', chain: [newSlot('far', 'reverb', 'neutral')] },
  ];
  const { piece: made } = scene(
    [soundOf(1, () => 0)],
    [
      { clips: [clipOf('a', 0, 0, 1)], chain: [newSlot('e', 'echo', 'neutral'), newSlot('h', 'stutter', 'neutral')] },
      { clips: [], mute: true, chain: [{ ...newSlot('b', 'braid', 'neutral', { plays: 'pattern' }), strands }] },
    ],
  );
  return { ...made, returns: [newReturn('r', 'Boat house'), newReturn('s', 'Far shore')] };
})();

test('a track throws into every return; without a track there is nothing to throw', () => {
  expect(throwPads(piece, 't0')).toMatchObject([
    { name: 'Boat house', label: 'Throw Track 0 into Boat house', target: { kind: 'send', channel: 't0', to: 'r' } },
    { name: 'Far shore', value: 1 },
  ]);
  expect(throwPads(piece, undefined)).toEqual([]);
  expect(throwPads(piece, 'gone')).toEqual([]);
});

test('what holds sound for ever has a pad, wherever it lies, but for holds', () => {
  const pads = freezePads(piece);
  expect(pads.map(({ target }) => target.kind === 'effect' && target.effect)).toEqual(['e', 'far']);
  expect(pads[0]).toMatchObject({ name: 'Track 0', label: 'Hold Echo on Track 0', value: true });
});

test('a pad lets go of what is on already', () => {
  const held = {
    ...piece,
    tracks: piece.tracks.map((track) => ({
      ...track,
      chain: track.chain.map((slot) => (slot.id === 'e' ? { ...slot, values: { ...slot.values, hold: true } } : slot)),
    })),
  };
  expect(freezePads(held)[0]!.value).toBe(false);
  expect(mutePads(held).map(({ label, value }) => [label, value])).toEqual([
    ['Mute Track 0', true],
    ['Open Track 1', false],
    ['Mute Boat house', true],
    ['Mute Far shore', true],
  ]);
});

test('strands have pads while their braid plays a pattern', () => {
  expect(strandPads(piece)).toMatchObject([
    { name: 'As it is', value: 1, strand: { slot: 'b', place: 1 } },
    { name: 'Far', value: 2, label: 'Take strand Far on Track 1' },
  ]);
  const all = {
    ...piece,
    tracks: piece.tracks.map((track) => ({
      ...track,
      chain: track.chain.map((slot) => ({ ...slot, values: { ...slot.values, plays: 'all' } })),
    })),
  };
  expect(strandPads(all)).toEqual([]);
});

test('a snapshot says what it is of', () => {
  const of = (channel: string | null): string => snapshotNote(piece, { id: 'n', name: 'N', channel, values: [] });
  expect([of(null), of('t0')]).toEqual(['the piece', 'Track 0']);
});

describe('presets of one’s own', () => {
  const block = (id: string, ...slots: Block['slots']): Block => ({ id, name: id, slots, sounds: {} });
  const echo = newSlot('x', 'echo', 'neutral', { feedback: 0.7 });

  test('are blocks of that one effect alone', () => {
    const blocks = [
      block('one', echo),
      block('two', echo, echo),
      block('other', newSlot('y', 'reverb', 'neutral')),
      block('whole', { ...echo, wetPath: [] }),
    ];
    expect(ownPresets(blocks, 'echo').map(({ id }) => id)).toEqual(['one']);
  });

  test('are known again by their values, whatever is frozen; those that ship by what the effect began with', () => {
    const [own] = ownPresets([block('one', echo)], 'echo');
    const slot = { ...echo, preset: null };
    expect(presetOf(slot, [own!])?.id).toBe('one');
    expect(presetOf({ ...slot, values: { ...slot.values, hold: true } }, [own!])?.id).toBe('one');
    expect(presetOf({ ...slot, values: { ...slot.values, feedback: 0.1 } }, [own!])).toBeUndefined();
    expect(presetOf({ ...slot, preset: 'gone' }, [own!])).toBeUndefined();
  });
});

test('everything of a channel that can be moved is found by effect; the piece’s own in the main output', () => {
  const titles = (channel: string): string[] => targetsOf(piece, channel, () => true).map(({ title }) => title);
  expect(titles('t0')).toEqual(['Echo', 'Stutter', 'Channel']);
  expect(titles('t1')).toEqual(['Braid', 'Reverb', 'Channel']);
  expect(titles('main')).toEqual(['Piece', 'Channel']);
  const onlyPan = targetsOf(piece, 't0', (target) => target.kind === 'channel' && target.param === 'pan');
  expect(onlyPan).toEqual([
    {
      title: 'Channel',
      choices: [expect.objectContaining({ target: { kind: 'channel', channel: 't0', param: 'pan' } })],
    },
  ]);
});
