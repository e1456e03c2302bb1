import { expect, test } from '@playwright/test';

test('the client’s first load is under 750 kB compressed, works without any other host, and is isolated', async ({
  page,
}) => {
  const client = await page.context().newCDPSession(page);
  await client.send('Network.enable');
  const urls = new Map<string, string>();
  const sizes = new Map<string, number>();
  client.on('Network.requestWillBeSent', ({ requestId, request }) => urls.set(requestId, request.url));
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) =>
    sizes.set(urls.get(requestId) ?? requestId, encodedDataLength),
  );
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  // The other views are fetched once this one is there, so that they open while the server is away.
  const sent = [...sizes].filter(([url]) => !url.includes('/api/') && !/(Chain|Moves|Play|Shelf)View-/.test(url));
  const total = sent.reduce((sum, [, size]) => sum + size, 0);
  test.info().annotations.push({ type: 'first load', description: `${Math.round(total / 1000)} kB` });
  expect(sent.length).toBeGreaterThan(4);
  expect(total).toBeLessThan(750_000);
  expect(
    [...urls.values()].filter(
      (url) => !url.startsWith('http://127.0.0.1') && !url.startsWith('blob:') && !url.startsWith('data:'),
    ),
  ).toEqual([]);
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
  console.log(`first load: ${Math.round(total / 1000)} kB compressed in ${sent.length} files`);
});
