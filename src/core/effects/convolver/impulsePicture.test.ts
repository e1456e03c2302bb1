import { PLAIN_CONTEXT } from '../../params/param';
import { LIBRARY } from '../../impulses/library';
import { impulsePicture } from './impulsePicture';

const values = { source: 'library', impulse: 'saltCistern', start: 200, length: 1000, fade: 0.5 };

describe('the picture of an impulse', () => {
  test('shows all of the source, and as used nothing but what is between its posts', () => {
    const picture = impulsePicture(values, PLAIN_CONTEXT);
    const source = LIBRARY.find(({ id }) => id === 'saltCistern')!.make(24_000);
    expect(picture.spanSeconds).toBeCloseTo(source.left.length / 24_000, 3);
    expect([picture.fromSeconds, picture.toSeconds, picture.fadeSeconds].map((x) => Math.round(x * 1000))).toEqual([
      200, 1200, 700,
    ]);
    const stretch = picture.spanSeconds / picture.left.length;
    picture.usedLeft.forEach((db, i) => {
      const [begins, ends] = [i * stretch, (i + 1) * stretch];
      if (ends < 0.2 || begins > 1.2) expect(db).toBe(-72);
      // Whole between the start and the fade, under the source after it: by half, 6 dB, in the middle of the fade.
      else if (begins > 0.202 && ends < 0.7) expect(db).toBeCloseTo(picture.left[i]!, 1);
      else if (begins > 0.94 && ends < 0.96) expect(db - picture.left[i]!).toBeCloseTo(-6, 0);
    });
  });

  test('an own sound is shown as it is; silence and nothing chosen are no trouble', () => {
    const click = Float32Array.from({ length: 48_000 }, (_, i) => (i === 4800 ? 1 : i === 9600 ? 0.1 : 0));
    const picture = impulsePicture({ source: 'own', fade: 0 }, PLAIN_CONTEXT, [click]);
    const loud = picture.left.flatMap((db, i) =>
      db > -40 ? [[Math.round(i * (picture.spanSeconds / 240) * 100) / 100, Math.round(db)]] : [],
    );
    expect(loud).toHaveLength(2);
    expect(loud[1]![1]! - loud[0]![1]!).toBeLessThanOrEqual(-20);
    expect(impulsePicture({ source: 'own' }, PLAIN_CONTEXT).measuredSeconds).toBeNull();
  });
});
