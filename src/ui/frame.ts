import { useEffect, useRef } from 'react';

/** Draws a frame; returns true to have the next frame drawn as well. */
export type Draw = () => boolean | void;

/** Frames are drawn for so long after an event or a render. */
const LINGER_MS = 300;
/** Events after which something may look different without a render. */
const REDRAW_EVENTS = ['pointermove', 'wheel', 'scroll', 'resize', 'input', 'focusin', 'visibilitychange'] as const;
const DOWN_EVENTS = ['pointerdown', 'keydown'] as const;
const UP_EVENTS = ['pointerup', 'pointercancel', 'keyup'] as const;

/** One animation frame loop for the whole page. It stops while nothing moves. */
class FrameLoop {
  private readonly draws = new Set<{ readonly current: Draw }>();
  /** Pointers and keys that are down: what they hold may change with time alone. */
  private readonly held = new Set<string>();
  private frame = 0;
  private until = 0;
  private listening = false;

  add(draw: { readonly current: Draw }): () => void {
    this.listen();
    this.draws.add(draw);
    this.request();
    return () => this.draws.delete(draw);
  }

  request(): void {
    this.until = performance.now() + LINGER_MS;
    if (this.frame === 0) this.frame = requestAnimationFrame(this.next);
  }

  private readonly next = (): void => {
    this.frame = 0;
    let moves = this.held.size > 0 || performance.now() < this.until;
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
    for (const type of REDRAW_EVENTS) window.addEventListener(type, () => this.request(), options);
    for (const type of [...DOWN_EVENTS, ...UP_EVENTS])
      window.addEventListener(type, (event) => this.trackHeld(event), options);
    window.addEventListener('blur', () => this.held.clear());
  }

  private trackHeld(event: Event): void {
    const id = event instanceof KeyboardEvent ? event.code : `pointer ${(event as PointerEvent).pointerId}`;
    if ((DOWN_EVENTS as readonly string[]).includes(event.type)) this.held.add(id);
    // A browser sends no keyup for keys that are released while Meta is down.
    else if (event instanceof KeyboardEvent && event.key === 'Meta') this.held.clear();
    else this.held.delete(id);
    this.request();
  }
}

const loop = new FrameLoop();

/** Starts the frame loop again, after a change that comes with no event and no render. */
export const requestFrames = (): void => loop.request();

/**
 * Calls back for every frame of the display while the loop runs: while a pointer or a key is down, shortly after
 * any input and any change of the component, and for as long as any callback returns true. What it draws goes straight
 * to elements, past React.
 */
export function useFrame(draw: Draw): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
    loop.request();
  });
  useEffect(() => loop.add(latest), []);
}

/** The element of a React Native view on the web. */
export const elementOf = (view: unknown): HTMLElement | null => (view instanceof HTMLElement ? view : null);
