import { expectAccessible, throughAllViews, throughChains, throughClips, throughMoves, throughPrints } from './access';
import { test } from './bench';

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(colorScheme === 'light' ? 'day' : 'night', () => {
    test.use({ colorScheme });
    test('axe finds nothing in any view', async ({ page, pieceId: _open }) => {
      await throughAllViews(page, (what) => expectAccessible(page, what));
    });
    test('axe finds nothing in chains and what they open', async ({ page, pieceId: _open }) => {
      await throughChains(page, (what) => expectAccessible(page, what));
    });
  });
}

test.describe('night, moves and clips', () => {
  test.use({ colorScheme: 'dark' });
  test('axe finds nothing in what moves open', async ({ page, pieceId: _open }) => {
    await throughMoves(page, (what) => expectAccessible(page, what));
  });
  test('axe finds nothing in what clips and stretches open', async ({ page, pieceId: _open }) => {
    await throughClips(page, (what) => expectAccessible(page, what));
  });
  test('axe finds nothing in prints, steps, recipes and files', async ({ page, pieceId: _open }) => {
    await throughPrints(page, (what) => expectAccessible(page, what));
  });
});
