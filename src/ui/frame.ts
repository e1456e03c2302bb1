import { useEffect, useRef } from 'react';

/** Called once for every frame; true when the next frame will look different again. */
export type Draw = () => boolean | void;

/** How long frames go on after something happened that nobody says more of. */
const LINGER_MS = 300;
/** What may change how something looks without React. */
const HAPPENINGS = ['pointermove', 'wheel', 'scroll', 'resize', 'input', 'focusin', 'visibilitychange'] as const;
const DOWN = ['pointerdown', 'keydown'] as const;
const UP = ['pointerup', 'pointercancel', 'keyup'] as const;

/** One loop of frames for the whole page. It ends where nothing moves: a page that stands still draws nothing. */
class FrameLoop {
  private readonly draws = new Set<{ readonly current: Draw }>();
  /** Fingers and keys that are down: what they hold may go by time. */
  private readonly down = new Set<string>();
  private frame = 0;
  private until = 0;
  private listening = false;

  add(draw: { readonly current: Draw }): () => void {
    this.listen();
    this.draws.add(draw);
    this.drawSoon();
    return () => this.draws.delete(draw);
  }

  drawSoon(): void {
    this.until = performance.now() + LINGER_MS;
    if (this.frame === 0) this.frame = requestAnimationFrame(this.next);
  }

  private readonly next = (): void => {
    this.frame = 0;
    let moves = this.down.size > 0 || performance.now() < this.until;
    for (const draw of this.draws) {
      try {
        if (draw.current() === true) moves = true;
      } catch (error) {
        reportError(error);
      }
    }
    if (moves && this.frame === 0) this.frame = requestAnimationFrame(this.next);
  };

  /** For as long as the page is there. */
  private listen(): void {
    if (this.listening) return;
    this.listening = true;
    const options = { capture: true, passive: true };
    for (const type of HAPPENINGS) window.addEventListener(type, () => this.drawSoon(), options);
    for (const type of [...DOWN, ...UP]) window.addEventListener(type, (event) => this.hand(event), options);
    window.addEventListener('blur', () => this.down.clear());
  }

  private hand(event: Event): void {
    const id = event instanceof KeyboardEvent ? event.code : `pointer ${(event as PointerEvent).pointerId}`;
    if ((DOWN as readonly string[]).includes(event.type)) this.down.add(id);
    else this.down.delete(id);
    this.drawSoon();
  }
}

const loop = new FrameLoop();

/** Has frames drawn again, when something changed that the page does not hear of by itself. */
export const drawSoon = (): void => loop.drawSoon();

/**
 * Calls back for every frame the display shows while anything on the page moves: while a hand is down, shortly after
 * any input and any change of the component, and for as long as any callback returns true. What it draws goes straight
 * to elements, past React.
 */
export function useFrame(draw: Draw): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
    loop.drawSoon();
  });
  useEffect(() => loop.add(latest), []);
}

/** The element a React Native view stands for on the web. */
export const elementOf = (view: unknown): HTMLElement | null => (view instanceof HTMLElement ? view : null);
