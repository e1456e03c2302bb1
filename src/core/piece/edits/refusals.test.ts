import { echoSlot, hashOf } from '../testing';
import { applyEdit, type Edit, type Edited } from '../edit';
import { newReturn } from '../piece';
import { addStrand, removeStrand } from './braid';
import { addEffect, removeEffect, setEffectSide, setEffectSound } from './chain';
import { addTrack, removeTrack, setLoop } from './channels';
import { copyClip, moveClip } from './clips';
import { crossfadeClip, joinClip, splitClip } from './clipShape';
import { mapControl } from './controls';
import { takeKept } from './storedVariants';
import { throwHits } from './lanes';
import { addLink, setModulator } from './links';
import { putSection } from './sections';
import { addReturn, setSend } from './sends';

import { everything as piece, lfo, PAN } from './testingScene';

const refused = <Args>(edit: Edit<Args>, args: Args, reason: RegExp): readonly [string, () => Edited, RegExp] => [
  `${edit.name}: ${reason.source}`,
  () => applyEdit(piece, edit, args),
  reason,
];

test.each([
  refused(moveClip, { clip: 'gone', start: 0 }, /no longer in the piece/),
  refused(copyClip, { clip: 'a', start: 0, track: 't0', id: 'b' }, /of that id/),
  refused(addTrack, { track: piece.tracks[0]!, sounds: {} }, /already/),
  refused(removeTrack, { track: 'gone' }, /no longer in the piece/),
  refused(splitClip, { clip: 'a', beat: 20, id: 'x' }, /Put the playhead inside/),
  refused(joinClip, { clip: 'c' }, /print them/),
  refused(crossfadeClip, { clip: 'a' }, /Move them over each other/),
  refused(setLoop, { on: true, start: 4, end: 4.1 }, /quarter of a beat/),
  refused(removeEffect, { channel: 't0', slot: 'gone' }, /no longer in the chain/),
  refused(addEffect, { channel: 't1', slot: echoSlot('e', {}), at: 0 }, /already/),
  refused(setEffectSide, { channel: 't0', slot: 'c1', side: 't0' }, /its own track/),
  refused(setEffectSound, { channel: 't0', slot: 'e', sound: hashOf(9) }, /no longer in the piece/),
  refused(addStrand, { channel: 't0', slot: 'e', called: 'x' }, /Only a braid/),
  refused(removeStrand, { channel: 't1', slot: 'bd', place: 8 }, /no longer in the braid/),
  refused(addReturn, { made: newReturn('r', 'x') }, /already/),
  refused(setSend, { channel: 'r', to: 'r', level: 1 }, /./),
  refused(throwHits, { lane: piece.lanes[0]!, hits: 1 }, /that is none/),
  refused(addLink, { modulator: lfo, link: { id: 'l', modulator: 'm', target: PAN, depth: 1 } }, /already/),
  refused(setModulator, { modulator: 'gone', change: { name: 'x' } }, /no longer in the piece/),
  refused(putSection, { id: 'x', name: 'x', beat: 99 }, /beyond the end/),
  refused(takeKept, { channel: 't0', id: 'gone' }, /no longer kept/),
  refused(
    mapControl,
    { control: { id: 'x', number: 1, midiChannel: 0, target: { kind: 'channel', channel: 'gone', param: 'pan' } } },
    /no longer in the piece/,
  ),
])('what cannot be done is said: %s', (_name, act, reason) => {
  const before = JSON.stringify(piece);
  expect(act).toThrow(reason);
  expect(JSON.stringify(piece)).toBe(before);
});
