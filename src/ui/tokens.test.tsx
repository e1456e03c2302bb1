import { DAY, NIGHT, type Tokens } from './tokens';

/** Relative luminance of `#RRGGBB`. Source: W3C, "Web Content Accessibility Guidelines 2.2" (2023). */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const share = parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : Math.pow((share + 0.055) / 1.055, 2.4);
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
}

test('black and white differ by 21:1, as the guidelines say', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});

describe.each<[string, Tokens]>([
  ['day', DAY],
  ['night', NIGHT],
])('by %s', (_light, tokens) => {
  test.each<[string, keyof Omit<Tokens, 'night'>, keyof Omit<Tokens, 'night'>]>([
    ['a stone asleep', 'ink', 'card'],
    ['a stone that waits', 'ink', 'seaSoft'],
    ['a stone that sounds', 'paper', 'seaDeep'],
    ['a ring', 'ink', 'paper'],
    ['a ring that is down', 'paper', 'coralDeep'],
  ])('%s is written at 7:1', (_what, ink, ground) => {
    expect(contrast(tokens[ink], tokens[ground])).toBeGreaterThanOrEqual(7);
  });

  test.each(['ink', 'mute', 'sandInk', 'sea', 'coralInk', 'plum', 'danger'] as const)(
    '%s is read on paper and cards',
    (ink) => {
      for (const ground of ['paper', 'card'] as const)
        expect(contrast(tokens[ink], tokens[ground])).toBeGreaterThanOrEqual(4.5);
    },
  );
});
