import { makeImpulse, type ImpulseOrder } from '../../impulses/make';
import type { ParamValues, ValueContext } from '../../params/param';
import { decayPictureOf } from '../decayPicture';
import { defineEffect, type EffectDefinition, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import type { DecayPicture } from '../pictures';
import { impulseNeed } from './order';
import { convolverParams } from './params';
import { ConvolverProcessor } from './processor';
import { roomPicture } from './roomPicture';

const PICTURE_RATE = 24_000;
const OWN = 'own';

/** The impulse itself, as it is convolved with, and how it falls. @param own samples of the own sound, at the rate of the context */
function fallPicture(values: ParamValues, context: ValueContext, own?: readonly Float32Array[]): DecayPicture {
  const rate = own ? context.sampleRate : PICTURE_RATE;
  const need = impulseNeed(values, { ...context, sampleRate: rate }, own ? OWN : null);
  const made = need ? makeImpulse(need.order as ImpulseOrder, new Map(own ? [[OWN, own]] : [])) : null;
  const silence = new Float64Array(rate / 10);
  const preDelaySeconds = numbersOf(convolverParams, values, context)('preDelay') / 1000;
  const left = made ? Float64Array.from(made.left) : silence;
  const right = made ? Float64Array.from(made.right) : silence;
  const span = left.length / rate;
  return decayPictureOf(left, right, rate, {
    preDelaySeconds, setSeconds: null, early: [],
    handles: [
      { label: 'Decay', x: 0.5 * span, y: -30, pullX: pullOn(convolverParams, values, context, 'decayScale', 'times'), pullY: null },
      { label: 'Length', x: 0.98 * span, y: -56, pullX: pullOn(convolverParams, values, context, 'length', 'add', 1000), pullY: null },
    ],
  });
}

const picture: EffectDefinition['picture'] = (values, context, own) => (values.source === 'room' ? roomPicture(values, context) : fallPicture(values, context, own));

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'The boat shed as it is, wet and dry apart.', values: { balance: 'levels', dry: 1, wet: 1 } },
  { id: 'inTheShed', name: 'In the shed', purpose: 'Dry parts put into one wooden place.', values: { impulse: 'boatShed', mix: 0.28 } },
  { id: 'cisternCall', name: 'Call into the cistern', purpose: 'Long and dark, for a voice or a single hit.', values: { impulse: 'saltCistern', mix: 0.32, preDelay: 24, lowCut: 140 } },
  { id: 'waitingHall', name: 'Waiting hall', purpose: 'A large bright hall behind strings and pads.', values: { impulse: 'ticketHall', mix: 0.3, highCut: 9000 } },
  { id: 'boilerRing', name: 'Boiler ring', purpose: 'Turns hits into ringing brass.', values: { impulse: 'brassBoiler', mix: 0.3 } },
  { id: 'fretVeil', name: 'Fret veil', purpose: 'A soft haze that lies behind anything.', values: { impulse: 'seaFret', mix: 0.4, lowCut: 220, width: 1.4 } },
  { id: 'waveIn', name: 'Wave coming in', purpose: 'Every sound swells up after itself; print and trim it into a lift.', values: { impulse: 'comingWave', mix: 0.5 } },
  { id: 'ownRoom', name: 'A room of your own', purpose: 'Describe it: size, walls, where you stand.', values: { source: 'room', mix: 0.3 } },
];

export const convolver = defineEffect({
  id: 'convolver', name: 'Convolver', family: 'reverb', purpose: 'A real or made place: from the library, from a room you describe, or from any sound.',
  params: convolverParams, presets, headline: ['source', 'impulse', 'decayScale'], createProcessor: (sampleRate) => new ConvolverProcessor(sampleRate), picture, impulse: impulseNeed,
});
