import type { Draft } from 'immer';
import type { Macro } from '../../automation/modulator';
import type { ParamValue } from '../../params/param';
import { findMacro, findSlot } from '../find';
import { MAIN, ON_PARAM, type Piece, type Slot, type Snapshot } from '../piece';
import { draftChannel } from './channels';

/** Sets the base value of a target; a value of the wrong kind is ignored. */
export function setBase(draft: Draft<Piece>, { target, value }: Snapshot['values'][number]): void {
  switch (target.kind) {
    case 'effect': {
      const slot = findSlot(draft as Piece, target.channel, target.effect) as Draft<Slot>;
      if (target.param === ON_PARAM) slot.on = value === true;
      else slot.values[target.param] = value;
      return;
    }
    case 'awaited':
      return;
    case 'tempo':
      if (typeof value === 'number') draft.tempo.bpm = value;
      return;
    case 'macro':
      if (typeof value === 'number') (findMacro(draft as Piece, target.macro) as Draft<Macro>).level = value;
      return;
    case 'send': {
      const send = draftChannel(draft, target.channel).sends.find(({ to }) => to === target.to);
      if (send && typeof value === 'number') send.level = value;
      return;
    }
    case 'channel':
      setChannelValue(draft, target.channel, target.param, value);
  }
}

function setChannelValue(draft: Draft<Piece>, channel: string, param: string, value: ParamValue): void {
  if (typeof value === 'boolean') draftChannel(draft, channel).mute = value;
  if (typeof value !== 'number') return;
  if (channel === MAIN) draft.main.gain = value;
  else draftChannel(draft, channel)[param === 'pan' ? 'pan' : 'gain'] = value;
}
