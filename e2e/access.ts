import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expect, fromHead, go, unfoldStrip } from './fixtures';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary?: string }[];
}

/** The rules that look at colours. */
const BY_COLOUR = ['color-contrast', 'link-in-text-block'];
const ALL = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];

/** Nothing that axe objects to by WCAG 2.2 AA. */
export async function expectAccessible(page: Page, what: string, runOnly: readonly string[] = ALL): Promise<void> {
  await page.evaluate(AXE);
  const violations = await page.evaluate(async (rules) => {
    const { axe } = window as unknown as {
      axe: { run(root: Document, options: object): Promise<{ violations: Violation[] }> };
    };
    return (await axe.run(document, { runOnly: rules })).violations;
  }, runOnly);
  const said = violations.flatMap(({ id, nodes }) =>
    nodes.map(
      (node) =>
        `${id}: ${(node.failureSummary ?? '').split('\n').slice(1).join(' ').trim()} in ${node.html.replace(/class="[^"]*"/, '').slice(0, 110)}`,
    ),
  );
  expect.soft([...new Set(said)], what).toEqual([]);
}

/** The same by day, and by night what night changes: the colours. */
export async function expectAccessibleByDayAndNight(page: Page, what: string): Promise<void> {
  await expectAccessible(page, what);
  const ground = (): Promise<string> =>
    page
      .getByRole('main')
      .first()
      .evaluate((element) => {
        for (let at: Element | null = element; at; at = at.parentElement)
          if (!/, 0\)$|transparent/.test(getComputedStyle(at).backgroundColor))
            return getComputedStyle(at).backgroundColor;
        return '';
      });
  const day = await ground();
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect.poll(ground).not.toBe(day);
  await expectAccessible(page, `${what}, by night`, BY_COLOUR);
  await page.emulateMedia({ colorScheme: 'light' });
  await expect.poll(ground).toBe(day);
}

/** Everything that is touched is at least 44 px each way, but for clips, which are as long as they sound. */
export async function expectLargeTargets(page: Page, what: string): Promise<void> {
  const small = (): Promise<string[]> =>
    page.evaluate(() => {
      const roles = ['button', 'radio', 'switch', 'tab', 'slider', 'link'];
      return [...document.querySelectorAll<HTMLElement>(roles.map((role) => `[role=${role}]`).join())].flatMap(
        (element) => {
          const { width, height } = element.getBoundingClientRect();
          const name = element.getAttribute('aria-label') ?? element.textContent;
          const clip = /^(Clip|Print) /.test(name ?? '');
          return width > 0 && (width < 43.9 || height < 43.9) && !clip
            ? [`${name}: ${width.toFixed(0)} x ${height.toFixed(0)}`]
            : [];
        },
      );
    });
  // A message that comes is smaller in its first frame.
  await expect.poll(small, { message: what, timeout: 5000 }).toEqual([]);
}

/** Goes through every view with an echo, a lane and a print in place. */
export async function throughAllViews(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  await look('Piece');
  for (const [button, what] of [
    [/^Salt Pier: name, open, new/, 'what is done with pieces'],
    ['Add sounds, a track or a return', 'what is added'],
    [/^Track Humming voice: name, order/, 'a track'],
  ] as const) {
    await page.getByRole('button', { name: button }).click();
    await look(what);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  }
  await page.getByRole('button', { name: 'Clip Hum, answer' }).click();
  await look('Piece with a clip chosen');
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await look('print sheet');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await fromHead(page, 'History');
  await look('history');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await go(page, 'Chain');
  await look('empty chain');
  await page.getByRole('button', { name: 'Add Echo: Call across the water' }).click();
  await expect(page.getByRole('img', { name: /^Repeats/ })).toBeVisible();
  await look('the editor of an effect');
  await page.getByRole('button', { name: /^Preset:/ }).click();
  await look('presets');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await go(page, 'Moves');
  await look('Moves without lanes');
  await page.getByRole('button', { name: 'Add a lane by hand' }).click();
  await page.getByRole('button', { name: 'Lane for Echo Input' }).click();
  await look('Moves with a lane');
  await go(page, 'Play');
  await expect(page.getByRole('slider', { name: /^Field Low water/ })).toBeVisible();
  await look('Play');
  for (const [button, what] of [
    ['Field: choose and set up', 'a field'],
    ['Add a hold', 'holds to add'],
    ['Pads: Throws', 'what pads play'],
  ] as const) {
    await page.getByRole('button', { name: button }).click();
    await look(what);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  }
  // Where there is room they are beside the stones.
  const figures = page.getByRole('button', { name: /^Figures of Stutter/ });
  if (await figures.isVisible()) {
    await figures.click();
    await page.getByRole('button', { name: 'Next preset' }).click();
    await expect(page.getByText('Windlass')).not.toHaveCount(0);
    await look('the figures of a hold');
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Hold Stutter: Windlass' })).toBeVisible();
  }
  await go(page, 'Shelf');
  await look('Shelf');
  await page.getByRole('button', { name: /^Tempo/ }).click();
  await look('tempo');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await go(page, 'Piece');
  await page.getByRole('button', { name: /: name, open, new$/ }).click();
  await page.getByRole('button', { name: /^New piece: Empty/ }).click();
  await expect(page.getByRole('group', { name: 'Ways to begin' })).toBeVisible();
  await look('an empty piece');
}

/** Goes through what is done to clips and stretches: shaping, recipes, gaps. */
export async function throughClips(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  const close = (): Promise<void> => page.getByRole('button', { name: 'Close' }).last().click();
  await page.getByRole('button', { name: 'Clip Hum, first call' }).click();
  await page.getByRole('switch', { name: 'Level, fades and slip' }).click();
  await look('a clip with its level and fades');
  await page.getByRole('button', { name: 'Swells into hits of this track' }).click();
  await page.getByRole('button', { name: 'Pick those after a gap' }).click();
  await look('swells');
  await page.getByRole('button', { name: 'Hear the first swell' }).click();
  await expect(page.getByRole('button', { name: 'Stop the first swell' })).toBeVisible({ timeout: 30_000 });
  await look('a swell that is heard');
  // It ends by itself: on a slow machine it may have done so while it was looked at.
  await expect(page.getByRole('button', { name: 'Hear the first swell' })).toBeVisible({ timeout: 30_000 });
  await close();
  await fromHead(page, 'Gaps of the piece');
  await look('gaps');
  await page
    .getByRole('button', { name: /^Choose the gap.*Humming voice/ })
    .first()
    .click();
  await look('a stretch of the piece');
  await page.getByRole('button', { name: 'Bed over this' }).click();
  await look('a bed');
  await expect(page.getByRole('status').filter({ hasText: 'nothing to freeze' })).toBeVisible();
  await close();
  await page.getByRole('button', { name: 'Riser over this' }).click();
  await look('a riser');
  await close();
}

/** Goes through prints, treated clips, recipes, sections, the history and files. */
export async function throughPrints(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  const press = (role: 'button' | 'radio' | 'link', name: string | RegExp): Promise<void> =>
    page
      .getByRole(role, { name, exact: typeof name === 'string' })
      .last()
      .click();
  const close = (): Promise<void> => press('button', 'Close');
  await press('button', 'Clip Hum, answer');
  await press('button', 'Treat this clip …');
  await look('a clip without steps');
  await press('button', 'Add pitch and length');
  await press('button', 'Add an effect');
  await look('effects to treat with');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Red iron');
  await press('button', 'Treat with Drive: Red iron');
  await press('button', 'Unfold step 2');
  await look('steps of a clip');
  await press('button', 'Treat this clip');
  await expect(page.getByText(/The source is untouched/)).toBeVisible({ timeout: 30_000 });
  await look('a treated clip');
  await press('button', 'Print');
  await look('what is printed');
  await press('button', 'Start the print');
  await press('button', 'Recipes for this');
  await look('recipes');
  await press('button', 'Tape stop …');
  await look('a recipe');
  await press('button', 'Make Tape stop');
  await expect(page.getByText(/Tape stop made/)).toBeVisible({ timeout: 30_000 });
  await fromHead(page, 'History');
  await look('the history');
  await press('button', /^Take out Treat Hum, answer.* alone$/);
  await expect(page.getByText(/stands on it/)).toBeVisible();
  await look('an edit that others stand on');
  await close();
  await press('link', 'Shelf');
  await expect(page.getByRole('group', { name: /^Print Hum, answer/ })).toBeVisible({ timeout: 30_000 });
  await press('button', 'Write files');
  await press('radio', 'Write prints');
  await look('what is written');
  await press('button', 'Start writing');
  const sheet = page.getByRole('dialog', { name: 'Write files' });
  const file = sheet.getByRole('button', { name: /^Download Salt Pier - Hum, answer.*wav$/ });
  await expect(file).toBeVisible({ timeout: 60_000 });
  await look('what was written');
  await press('button', 'Close');
  await look('the Shelf with prints and files');
}

/** Goes through what a chain holds and opens: a braid, menus, meters, comparing, a place of one's own. */
export async function throughChains(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  const strand = async (): Promise<void> => {
    const back = page.getByRole('button', { name: 'Back to the chain' });
    if (await back.isVisible()) await back.click();
  };
  const sheet = async (
    opener: string | RegExp,
    what: string,
    inside: () => Promise<void> = async () => undefined,
  ): Promise<void> => {
    await page.getByRole('button', { name: opener }).last().click();
    await inside();
    await look(what);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  };
  await go(page, 'Chain');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Bloom');
  await page.getByRole('button', { name: 'Add Braid: Bloom' }).click();
  await expect(page.getByRole('img', { name: /^Braid of 2/ })).toBeVisible();
  await look('braid');
  await strand();
  await look('strand with strands');
  await sheet('More for Taps', 'card menu');
  await sheet('More for strand Dry', 'strand menu');
  await sheet('More for Humming voice, track', 'channel menu');
  await sheet('Add an effect to Dry', 'adding into a strand');
  await unfoldStrip(page);
  await look('the channel unfolded');
  await sheet(/^Meters of/, 'meters', async () => {
    await page.getByRole('button', { name: 'Measure the load of each effect' }).click();
    await expect(page.getByLabel(/^Reverb \d/)).toBeVisible({ timeout: 30_000 });
  });
  await sheet(/^Compare settings/, 'kept settings', () => page.getByRole('button', { name: 'Keep this' }).click());
  await sheet(/^Ways to make/, 'made wide');
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Convolver');
  await page.getByRole('button', { name: 'Add Convolver: Neutral' }).click();
  await page.getByRole('radio', { name: 'own sound' }).click();
  await look('own sound');
  await sheet('Record a place', 'recording a place');
}

/** Goes through all that moves open: recording, throws, links, stretches, shapes. */
export async function throughMoves(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  const close = (): Promise<void> => page.getByRole('button', { name: 'Close' }).last().click();
  await go(page, 'Chain');
  await unfoldStrip(page);
  await page.getByRole('button', { name: 'Add a return' }).last().click();
  await page.getByRole('button', { name: 'Add return: Echo' }).click();
  await go(page, 'Moves');
  await page.getByRole('button', { name: /^Recording of/ }).click();
  await look('recording modes');
  await close();
  await page.getByRole('button', { name: /^Throws of/ }).click();
  await expect(page.getByText(/hits\. Tap those/)).toBeVisible();
  await page.getByRole('button', { name: 'Pick every 2nd', exact: true }).click();
  await look('picked throws');
  await page.getByRole('tab', { name: 'By hand' }).click();
  await look('throws by hand');
  await close();
  await page.getByRole('button', { name: /^Links of/ }).click();
  await page.getByRole('button', { name: 'Link a rail' }).click();
  await page.getByRole('button', { name: 'Link Channel Pan' }).click();
  await look('what turns');
  await page.getByRole('button', { name: 'A row of steps' }).click();
  await look('a link');
  await close();
  await page.getByRole('button', { name: 'Add a lane by hand' }).click();
  await page.getByRole('button', { name: 'Lane for Channel Level' }).click();
  await page.getByRole('slider', { name: 'Place in the piece' }).focus();
  for (let i = 0; i < 4; i += 1) await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('toolbar', { name: 'Tools for the chosen stretch' })).toBeVisible();
  await look('a stretch');
  await page.getByRole('button', { name: 'Draw a shape into the stretch' }).click();
  await look('shapes');
  await close();
  await page.getByRole('button', { name: /^Points fall on/ }).click();
  await look('what points fall on');
  await close();
  await page.getByRole('button', { name: 'Snapshots' }).click();
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Go to Tide 1' })).toBeVisible();
  await look('snapshots');
  await close();
  await page.getByRole('button', { name: /^Tempo 92/ }).click();
  await look('the tempo');
  await close();
  await page.getByRole('button', { name: /^Lanes in view/ }).click();
  await page.getByRole('radio', { name: /^Chosen/ }).click();
  await look('lanes in view');
  await close();
  await page.getByRole('button', { name: /^Controller/ }).click();
  await page.getByRole('button', { name: 'Map a rail to a control' }).click();
  await look('rails to map');
  await page.getByRole('button', { name: 'Map Channel Pan of Humming voice' }).click();
  await look('waiting for a control');
  await page.getByRole('slider', { name: 'Fader 3' }).press('ArrowRight');
  await expect(page.getByText('Humming voice: Pan')).toBeVisible();
  await look('a control that is mapped');
  await close();
}
