import { defineEffect, type Preset } from '../define';
import { impulseNeed } from './order';
import { convolverParams } from './params';
import { whenGroup } from '../visibleWhen';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'The boat shed as it is, wet and dry apart.',
    values: { balance: 'levels', dry: 1, wet: 1 },
  },
  {
    id: 'inTheShed',
    name: 'In the shed',
    purpose: 'Dry parts put into one wooden place.',
    values: { impulse: 'boatShed', mix: 0.28 },
  },
  {
    id: 'cisternCall',
    name: 'Call into the cistern',
    purpose: 'Long and dark, for a voice or a single hit.',
    values: { impulse: 'saltCistern', mix: 0.32, preDelay: 24, lowCut: 140 },
  },
  {
    id: 'waitingHall',
    name: 'Waiting hall',
    purpose: 'A large bright hall behind strings and pads.',
    values: { impulse: 'ticketHall', mix: 0.3, highCut: 9000 },
  },
  {
    id: 'boilerRing',
    name: 'Boiler ring',
    purpose: 'Turns hits into ringing brass.',
    values: { impulse: 'brassBoiler', mix: 0.12, trim: 0.6 },
  },
  {
    id: 'fretVeil',
    name: 'Fret veil',
    purpose: 'A soft haze that lies behind anything.',
    values: { impulse: 'seaFret', mix: 0.4, lowCut: 220, width: 1.4 },
  },
  {
    id: 'waveIn',
    name: 'Wave coming in',
    purpose: 'Every sound swells up after itself; print and trim it into a lift.',
    values: { impulse: 'comingWave', mix: 0.5 },
  },
  {
    id: 'ownRoom',
    name: 'A room of your own',
    purpose: 'Describe it: size, walls, where you stand.',
    searchWords: 'clap impulse own',
    values: { source: 'room', mix: 0.3 },
  },
];

export const convolver = defineEffect({
  id: 'convolver',
  name: 'Convolver',
  family: 'reverb',
  purpose: 'A real or made place: from the library, from a room you describe, or from any sound.',
  searchWords: 'impulse IR convolution impulse response clap real room ambience',
  params: convolverParams,
  presets,
  headline: ['source', 'impulse', 'decayScale'],
  impulse: impulseNeed,
  visibleWhen: {
    impulse: [{ param: 'source', is: 'library' }],
    ...whenGroup(convolverParams, 'Room', { param: 'source', is: 'room' }),
    ...whenGroup(convolverParams, 'Walls', { param: 'source', is: 'room' }),
  },
  editorParts: [{ part: 'ownSound', after: 'source', when: { param: 'source', is: 'own' }, length: 'length' }],
});
