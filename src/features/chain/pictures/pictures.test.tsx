import { fireEvent, render, screen } from '@testing-library/react';
import { EFFECTS } from '../../../core/effects/catalogue';
import { implementationOf } from '../../../core/effects/implementations';
import type { EffectPicture } from '../../../core/effects/pictures';
import { PLAIN_CONTEXT } from '../../../core/params/param';
import { presetValues } from '../../../core/piece/edits/chain';
import { PictureChart } from './PictureChart';
import { PictureThumb } from './PictureThumb';

const HEIGHT = 190;
const pictureOf = (effect: string, preset: string, values = {}): EffectPicture =>
  implementationOf(effect).picture({ ...presetValues(effect, preset), ...values }, PLAIN_CONTEXT);

function show(picture: EffectPicture, width: number, onPull = jest.fn()): jest.Mock {
  render(
    <PictureChart
      picture={picture}
      tempo={PLAIN_CONTEXT.tempo}
      strands={[]}
      width={width}
      height={HEIGHT}
      drawing={false}
      playing={() => null}
      onPull={onPull}
    />,
  );
  return onPull;
}

/** Takes hold of the grip whose middle is at a place, and drags it. */
function drag(x: number, y: number, dx: number, dy: number): void {
  const grip = [...document.querySelectorAll<HTMLElement>('[aria-hidden]')].find(
    ({ style }) =>
      Math.abs(parseFloat(style.left) + 22 - x) < 3 &&
      (Number.isNaN(y) || Math.abs(parseFloat(style.top) + 22 - y) < 3),
  );
  if (!grip) throw new Error(`There is no grip at ${x}, ${y}.`);
  grip.setPointerCapture = () => undefined;
  const fire = (type: string, clientX: number, clientY: number): void =>
    void fireEvent(
      grip,
      Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY, button: 0 }), { pointerId: 1 }),
    );
  fire('pointerdown', 0, 0);
  fire('pointermove', dx, dy);
  fire('pointerup', dx, dy);
}

describe.each(EFFECTS.map((effect) => [effect.name, effect] as const))('%s', (_name, effect) => {
  test.each(effect.presets.slice(0, 3).map(({ id }) => [id]))(
    'preset %s is drawn and said, on a phone, on a wide screen, and in small',
    (preset) => {
      const picture = pictureOf(effect.id, preset);
      for (const width of [390, 860]) {
        show(picture, width);
        const label = screen.getByRole('img').getAttribute('aria-label')!;
        expect(label.length).toBeGreaterThan(12);
        expect(`${label}${document.body.innerHTML}`).not.toMatch(/NaN|undefined|Infinity/);
        document.body.innerHTML = '';
      }
      render(<PictureThumb picture={picture} />);
      expect(document.body.innerHTML).not.toMatch(/NaN|undefined|Infinity/);
    },
  );
});

describe('handles', () => {
  test('an impulse is trimmed by its posts: as far as they are dragged', () => {
    const picture = pictureOf('convolver', 'neutral', { impulse: 'saltCistern', start: 500, length: 2000 });
    if (picture.kind !== 'impulse') throw new Error('The convolver shows something else.');
    const width = 36 + 100 * picture.spanSeconds;
    const pulled = show(picture, width);
    const middle = 26 + (HEIGHT - 26 - 22) / 2;
    // A hundred pixels are a second.
    drag(18 + 50, middle, 20, 0);
    expect(pulled).toHaveBeenLastCalledWith({ start: expect.closeTo(700, 3) }, true);
    drag(18 + 250, middle, -100, 0);
    expect(pulled).toHaveBeenLastCalledWith({ length: expect.closeTo(1000, 3) }, true);
  });

  test('a filter’s band follows the finger along the octaves, and stops at its range', () => {
    const picture = pictureOf('filter', 'neutral', { cutoff: 1000 });
    if (picture.kind !== 'response') throw new Error('The filter shows something else.');
    const octave = (860 - 32) / Math.log2(1000);
    const pulled = show(picture, 860);
    drag(16 + octave * Math.log2(1000 / 20), NaN, octave, 0);
    expect(pulled.mock.lastCall[0].cutoff).toBeCloseTo(2000, -1);
    drag(16 + octave * Math.log2(1000 / 20), NaN, 20 * octave, 0);
    expect(pulled.mock.lastCall[0].cutoff).toBe(20_000);
  });

  test('the first repeat sets the time of an echo: dragged to twice its place, twice as long', () => {
    const picture = pictureOf('echo', 'neutral', { timeL: 250 });
    if (picture.kind !== 'repeats') throw new Error('The echo shows something else.');
    const pulled = show(picture, 390);
    const grips = [...document.querySelectorAll<HTMLElement>('[aria-hidden]')].filter(
      ({ style }) => style.left !== '' && style.width !== '0px',
    );
    expect(grips.length).toBeGreaterThan(0);
    const first = grips.map(({ style }) => parseFloat(style.left) + 22).sort((a, b) => a - b)[0]!;
    drag(first, NaN, 40, 0);
    expect(pulled.mock.lastCall[0].timeL).toBeGreaterThan(250);
  });
});
