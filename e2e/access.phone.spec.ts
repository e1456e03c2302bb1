import { expectAccessible, expectLargeTargets, throughAllViews } from './access';
import { test } from './bench';

test('on a phone every view is clean and every target large', async ({ page, pieceId: _open }) => {
  await throughAllViews(page, async (what) => {
    await expectAccessible(page, what);
    await expectLargeTargets(page, what);
  });
});
