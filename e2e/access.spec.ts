import {
  expectAccessibleByDayAndNight,
  throughAllViews,
  throughChains,
  throughClips,
  throughMoves,
  throughPrints,
} from './access';
import { test } from './fixtures';

const WAYS = {
  'any view': throughAllViews,
  'chains and what they open': throughChains,
  'what moves open': throughMoves,
  'what clips and stretches open': throughClips,
  'prints, steps, recipes and files': throughPrints,
};

for (const [where, through] of Object.entries(WAYS)) {
  test(`axe finds nothing in ${where}, by day or night`, async ({ page, pieceId: _open }) => {
    await through(page, (what) => expectAccessibleByDayAndNight(page, what));
  });
}
