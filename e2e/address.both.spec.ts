import { expect, handOn, saved, test } from './fixtures';

test('the address says where one is: back goes back, a reload and a link open the same', async ({
  page,
  pieceId,
  hand,
}) => {
  await expect(page).toHaveURL(`/piece/${pieceId}`);
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some(({ id, chain }) => id === 'hum' && chain.length === 1),
  );
  const track = piece.tracks.find(({ id }) => id === 'hum')!;
  const bench = `/piece/${pieceId}/chain/${track.id}/${track.chain[0]!.id}`;
  const editor = page.getByRole('heading', { name: 'Echo', level: 2 });
  await expect(page).toHaveURL(bench);

  await hand.view('Moves');
  await expect(page).toHaveURL(`/piece/${pieceId}/moves/${track.id}`);
  await page.goBack();
  await expect(page).toHaveURL(bench);
  await expect(editor).toBeVisible();
  await page.goForward();
  await expect(page.getByRole('link', { name: 'Moves' })).toHaveAttribute('aria-current', 'page');

  await page.goto(bench);
  await expect(editor).toBeVisible();
  await page.goto(`/piece/${pieceId}/shelf`);
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
});

test('the playhead is where it was after a reload', async ({ page, pieceId, hasTouch }) => {
  await expect(page).toHaveURL(`/piece/${pieceId}`);
  const hand = handOn(page, hasTouch);
  await hand.view('Moves');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  for (let beat = 0; beat < 6; beat += 1) await ruler.press('ArrowRight');
  const place = page.getByRole('button', { name: 'Back to the start' });
  await expect(place).toContainText('2 . 3');
  await page.reload();
  await expect(place).toContainText('2 . 3');
  await hand.press('button', 'Back to the start');
  await expect(place).toContainText('1 . 1');
});

test('an address of nothing says so, and one of a piece that is gone opens what was open last', async ({
  page,
  pieceId,
}) => {
  await page.goto(`/piece/${pieceId}/cellar`);
  await expect(page.getByRole('heading', { name: 'Nothing is here' })).toBeVisible();
  await page.getByRole('link', { name: 'Piece' }).click();
  await expect(page).toHaveURL(`/piece/${pieceId}`);
  await page.goto('/piece/never-was/chain');
  await expect(page.getByText('The piece of this address is not here')).toBeVisible();
  await expect(page).toHaveURL(`/piece/${pieceId}/chain`);
});

test('a view whose code cannot be had says so, keeps the frame, and opens when it can', async ({ page, pieceId }) => {
  await page.route(/ShelfView/, (route) => route.abort());
  await page.goto(`/piece/${pieceId}/shelf`);
  await expect(page.getByRole('heading', { name: 'This view could not be opened' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await page.unroute(/ShelfView/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
});

test('views that were not opened yet open while the server is away', async ({ page, pieceId }) => {
  await page.waitForLoadState('networkidle');
  await page.route('**/*', (route) => route.abort());
  await page.getByRole('link', { name: 'Moves' }).click();
  await expect(page).toHaveURL(new RegExp(`/piece/${pieceId}/moves`));
  await expect(page.getByRole('slider', { name: 'Place in the piece' })).toBeVisible();
});
