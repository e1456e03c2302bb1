import type { Page } from '@playwright/test';
import { beatShown, expect, frames, test } from './fixtures';

/** What React drew while it was counted: elements of the page that components stand for. */
interface Drawn {
  /** @param expected selectors within which things are drawn */
  begin(expected: readonly string[]): void;
  /** How many were drawn, and those that are elsewhere. */
  end(): { readonly count: number; readonly outside: readonly string[] };
}
declare global {
  interface Window {
    drawn: Drawn;
  }
}

/**
 * Stands where React looks for its developer tools, which is told of every commit. A component was drawn where its flag
 * PerformedWork is set; a branch that was left alone has the same children as before.
 */
function countDraws(): void {
  interface Fiber {
    readonly tag: number;
    readonly flags: number;
    readonly alternate: Fiber | null;
    readonly child: Fiber | null;
    readonly sibling: Fiber | null;
    readonly stateNode: unknown;
  }
  const PERFORMED_WORK = 1;
  const COMPONENTS = [0, 1, 11, 15];
  const HOST = 5;
  let expected: readonly string[] | null = null;
  let count = 0;
  let outside: string[] = [];
  const elementOf = (fiber: Fiber | null): Element | null => {
    for (let at = fiber; at; at = at.sibling) {
      const found = at.tag === HOST ? (at.stateNode as Element) : elementOf(at.child);
      if (found) return found;
    }
    return null;
  };
  const note = (element: Element): void => {
    count += 1;
    if (expected!.some((selector) => element.closest(selector))) return;
    outside.push(element.getAttribute('aria-label') ?? element.outerHTML.slice(0, 160));
  };
  const walk = (fiber: Fiber): void => {
    const before = fiber.alternate;
    if (COMPONENTS.includes(fiber.tag) && before && (fiber.flags & PERFORMED_WORK) !== 0) {
      const element = elementOf(fiber.child);
      if (element) note(element);
    }
    if (before && before.child === fiber.child) return;
    for (let child = fiber.child; child; child = child.sibling) walk(child);
  };
  Object.assign(window, {
    __REACT_DEVTOOLS_GLOBAL_HOOK__: {
      supportsFiber: true,
      renderers: new Map(),
      inject: () => 1,
      onCommitFiberUnmount: () => undefined,
      onPostCommitFiberRoot: () => undefined,
      onCommitFiberRoot: (_id: number, root: { readonly current: Fiber }) => {
        if (expected) walk(root.current);
      },
    },
    drawn: {
      begin: (selectors: readonly string[]) => {
        expected = selectors;
        count = 0;
        outside = [];
      },
      end: () => {
        expected = null;
        return { count, outside };
      },
    },
  });
}

test.beforeEach(({ page }) => page.addInitScript(countDraws));

const begin = (page: Page, ...expected: readonly string[]): Promise<void> =>
  page.evaluate((selectors) => window.drawn.begin(selectors), expected);
const end = (page: Page): Promise<ReturnType<Drawn['end']>> => page.evaluate(() => window.drawn.end());

test('a rail that is dragged draws itself and the picture of its effect, and nothing else', async ({
  page,
  pieceId: _,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  // Pictures come from a worker: the first one of the card must not be counted as drawn by the rail.
  await expect(page.getByTestId('small picture').locator('svg')).toBeVisible();
  const rail = page.getByRole('slider', { name: 'Feedback', exact: true });
  const box = (await rail.boundingBox())!;
  const y = box.y + box.height / 2;
  await page.mouse.move(box.x + box.width * 0.4, y);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.42, y);
  await frames(page, 4);
  await begin(page, '[data-testid="rail feedback"]', '[data-testid="picture"]');
  for (let i = 0; i < 60; i += 1) {
    await page.mouse.move(box.x + box.width * (0.42 + 0.005 * i), y);
    await frames(page, 2);
  }
  const { count, outside } = await end(page);
  await page.mouse.up();
  expect(count).toBeGreaterThan(30);
  expect(outside).toEqual([]);
});

test('a playhead that moves draws nothing of React', async ({ page, pieceId: _, hand }) => {
  // The channel beside the tracks is fetched after the first view: its own first drawing is not the playhead's.
  await expect(page.getByLabel('Search effects and purposes')).toBeVisible();
  await hand.press('button', 'Play');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0.5);
  await begin(page);
  const from = await beatShown(page);
  await expect.poll(() => beatShown(page)).toBeGreaterThan(from + 2);
  expect((await end(page)).outside).toEqual([]);
});
