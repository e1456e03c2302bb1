import { EFFECTS } from './catalogue';
import { searchEffects } from './searchEffects';

const effects = (words: string): string[] => [...new Set(searchEffects(words).map(({ effect }) => effect.id))];
const first = (words: string): string => {
  const [found] = searchEffects(words);
  return `${found?.effect.id}/${found?.preset.id}`;
};

test.each([
  ['haas', 'sideDelay'],
  ['slapback', 'echo'],
  ['dub', 'echo'],
  ['telephone', 'filter'],
  ['rotary', 'placer'],
  ['lush', 'chorus'],
  ['glue', 'compressor'],
  ['sidechain', 'compressor'],
  ['formant', 'pitch'],
  ['impulse', 'convolver'],
  ['clap', 'convolver'],
  ['shimmer', 'grains'],
  ['ambience', 'reverb'],
  ['lofi', 'crush'],
  ['lo-fi', 'crush'],
  ['LFO', 'tremolo'],
  ['stutter', 'stutter'],
  ['tape stop', 'tapeStop'],
  ['widen', 'widener'],
  ['mono', 'utility'],
  ['vocal', 'doubling'],
  ['reverse', 'backwards'],
  ['distortion', 'drive'],
  ['ring modulator', 'shifter'],
  ['granular', 'cloud'],
  ['equaliser', 'eq'],
  ['freeze', 'reverb'],
])('"%s" finds %s among the first five effects', (words, effect) => {
  expect(effects(words).slice(0, 5)).toContain(effect);
});

test('words across names match, in any order, and each narrows', () => {
  expect(first('reverb neutral')).toBe('reverb/neutral');
  expect(first('neutral reverb')).toBe('reverb/neutral');
  expect(first('plate snare')).toBe('reverb/brassSheet');
  expect(searchEffects('echo dub').length).toBeLessThanOrEqual(searchEffects('echo').length);
});

test('an effect is found first by its own name, whole, begun, or with a slip of the pen', () => {
  for (const { id, name } of EFFECTS) {
    expect(effects(name)[0]).toBe(id);
    if (name.length < 6 || name.includes(' ')) continue;
    expect(effects(name.slice(0, -2))).toContain(id);
    expect(effects(name.slice(0, 2) + name.slice(3))).toContain(id);
  }
});

test('what is nothing finds nothing', () => {
  expect(searchEffects('qqqxx')).toEqual([]);
});
