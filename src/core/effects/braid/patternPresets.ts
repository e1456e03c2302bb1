import type { ParamValues } from '../../params/param';
import type { Preset, PresetStrand } from '../define';

type Treatment = readonly [name: string, ...chain: (readonly [effect: string, preset: string, values?: ParamValues])[]];

const strand = ([name, ...chain]: Treatment, i: number): PresetStrand => ({
  place: i + 1,
  name,
  chain: chain.map(([effect, preset, values]) => ({ effect, preset, ...(values && { values }) })),
});

/** A preset that plays its treatments one per step; each comes back at full level. */
function pattern(
  id: string,
  name: string,
  purpose: string,
  values: ParamValues,
  treatments: readonly Treatment[],
): Preset {
  const levels = Object.fromEntries(treatments.map((_, i) => [`level${i + 1}`, 1]));
  return { id, name, purpose, values: { plays: 'pattern', ...levels, ...values }, strands: treatments.map(strand) };
}

const row = (...steps: readonly number[]): ParamValues =>
  Object.fromEntries([['steps', steps.length], ...steps.map((strandAt, i) => [`row${i + 1}`, strandAt])]);

const AS_IT_IS: Treatment = ['As it is'];

export const patternPresets: readonly Preset[] = [
  pattern(
    'harbourSteps',
    'Harbour steps',
    'Six treatments in a row, an eighth each: a dry loop that walks from place to place.',
    { step: '1/8', order: 'forward', steps: 12 },
    [
      AS_IT_IS,
      ['Muffled', ['filter', 'underDeck']],
      ['Slapped', ['echo', 'hullSlap']],
      ['Toy', ['crush', 'toyBoat']],
      ['Shed', ['reverb', 'boatShed']],
      ['Pulsed', ['tremolo', 'cutRope']],
    ],
  ),
  pattern(
    'lockGates',
    'Lock gates',
    'Down and up again through four pitches, a quarter each, for a riff or a voice.',
    { step: '1/4', order: 'toAndFro', steps: 6, crossfade: 20 },
    [
      ['Octave under', ['pitch', 'octaveUnder', { balance: 'mix', mix: 1 }]],
      AS_IT_IS,
      ['Fifth above', ['pitch', 'fifthAbove', { balance: 'mix', mix: 1 }]],
      ['Octave above', ['pitch', 'highHail', { balance: 'mix', mix: 1 }]],
    ],
  ),
  pattern(
    'gullsInTurn',
    'Gulls in turn',
    'Five bright things by chance, a sixteenth each and short: fills over hats and plucks.',
    { step: '1/16', order: 'thrown', steps: 32, roll: 7, open: 0.7, crossfade: 6 },
    [
      AS_IT_IS,
      ['Answers', ['taps', 'threeGulls']],
      ['Jetty', ['flanger', 'jetty']],
      ['Spray', ['grains', 'spray', { balance: 'mix', mix: 0.6 }]],
      ['Buoy', ['shifter', 'radioBuoy']],
    ],
  ),
  pattern(
    'fiveBells',
    'Five bells',
    'Four spaces struck in a row of ten eighths that turns against the bar; every tail rings on.',
    { step: '1/8', order: 'drawn', crossfade: 8, open: 0.5, ...row(1, 0, 2, 1, 0, 3, 1, 2, 0, 4) },
    [
      AS_IT_IS,
      ['Sheet', ['reverb', 'brassSheet', { balance: 'mix', mix: 0.5 }]],
      ['Coil', ['reverb', 'mooringCoil', { balance: 'mix', mix: 0.5 }]],
      ['Cistern', ['reverb', 'saltCistern', { balance: 'mix', mix: 0.5 }]],
    ],
  ),
  pattern(
    'brokenSet',
    'Broken set',
    'Seven kinds of damage by chance in triplet sixteenths, each cut off by the next: for breaks and transitions.',
    { step: '1/16t', order: 'thrown', steps: 48, roll: 23, tails: 'cut', crossfade: 3 },
    [
      ['Gravel', ['crush', 'gravel']],
      ['Sampler', ['crush', 'oldSampler']],
      ['Torn', ['grit', 'torn']],
      ['Iron', ['drive', 'warmHold']],
      ['Comb', ['shifter', 'hollowComb']],
      ['Roof', ['flanger', 'tinRoof']],
      ['Chopped', ['phaser', 'chop']],
    ],
  ),
  pattern(
    'eightWatches',
    'Eight watches',
    'Eight slow colours, one a bar, with long crossfades: for pads and beds that shall never stand still.',
    { step: '1 bar', order: 'forward', steps: 8, crossfade: 500 },
    [
      AS_IT_IS,
      ['Chorus', ['chorus', 'choirBoats']],
      ['Swell', ['phaser', 'slowSwell']],
      ['Fog', ['echo', 'fogBank']],
      ['Oil', ['phaser', 'oilSheen']],
      ['Tide', ['reverb', 'tideRise', { balance: 'mix', mix: 0.5 }]],
      ['Circling', ['placer', 'circling', { balance: 'mix', mix: 0.5 }]],
      ['Low', ['filter', 'swellLine']],
    ],
  ),
];
