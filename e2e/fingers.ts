import type { CDPSession, Locator, Page } from '@playwright/test';

interface Finger {
  readonly x: number;
  readonly y: number;
  readonly id: number;
}

/** Fingers on the screen, through the browser's own touch events. */
export class Fingers {
  private down: readonly Finger[] = [];

  constructor(private readonly client: CDPSession) {}

  static async on(page: Page): Promise<Fingers> {
    return new Fingers(await page.context().newCDPSession(page));
  }

  async press(target: Locator, x = 0.5, y = 0.5): Promise<number> {
    const box = (await target.boundingBox())!;
    const id = this.down.reduce((most, finger) => Math.max(most, finger.id), 0) + 1;
    this.down = [...this.down, { x: box.x + x * box.width, y: box.y + y * box.height, id }];
    await this.client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [...this.down] });
    return id;
  }

  async move(id: number, dx: number, dy: number): Promise<void> {
    this.down = this.down.map((finger) =>
      finger.id === id ? { ...finger, x: finger.x + dx, y: finger.y + dy } : finger,
    );
    await this.client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [...this.down] });
  }

  async lift(id: number): Promise<void> {
    const lifted = this.down.filter((finger) => finger.id === id);
    this.down = this.down.filter((finger) => finger.id !== id);
    // Of several fingers those that go are named; none named is all of them.
    const touchPoints = this.down.length > 0 ? lifted : [];
    await this.client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints });
  }
}
