import {
  expectAccessible,
  expectLargeTargets,
  throughAllViews,
  throughChains,
  throughClips,
  throughMoves,
  throughPrints,
} from './access';
import { test } from './fixtures';

for (const [what, through] of [
  ['view', throughAllViews],
  ['chain and what it opens', throughChains],
  ['part of moves', throughMoves],
  ['clip and recipe', throughClips],
  ['print, step and file', throughPrints],
] as const) {
  test(`on a phone every ${what} is clean and every target large`, async ({ page, pieceId: _open }) => {
    await through(page, async (seen) => {
      await expectAccessible(page, seen);
      await expectLargeTargets(page, seen);
    });
  });
}
