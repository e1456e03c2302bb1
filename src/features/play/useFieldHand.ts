import { useEffect, useState, type RefObject } from 'react';
import type { View } from 'react-native';
import type { PlayField } from '../../core/piece/playField';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { elementOf, useFrame } from '../../ui/frame';
import { markHand } from '../../ui/handTime';
import type { Studio } from '../studio/studio';
import { useStudio } from '../studio/StudioProvider';
import { FieldHand, type FieldHost } from './fieldHand';

const hostOf = (studio: Studio): FieldHost => ({
  piece: useOpenPiece.getState().piece!,
  beat: studio.beat,
  playing: useRecording.getState().playing,
  moveTo: (position, atBeat) => studio.live.moveTo(position, atBeat),
  end: (target) => studio.live.end(target),
  leaveInPlace: (name, positions) => studio.live.leaveInPlace(name, positions),
});

/** Shares of a field that arrow keys go in a second; fine with Shift. */
const KEY_SPEED = 0.7;
const KEY_SPEED_FINE = 0.12;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Arrow keys that are down on a field. */
class ArrowKeys {
  readonly pressed = new Set<string>();
  fine = false;
  private lastFrame = 0;

  /** How far they go in a frame. @param now in ms */
  step(now: number): readonly [number, number] {
    const seconds = Math.min(0.1, (now - this.lastFrame) / 1000);
    this.lastFrame = now;
    const far = (this.fine ? KEY_SPEED_FINE : KEY_SPEED) * seconds;
    let [dx, dy] = [0, 0];
    for (const key of this.pressed) {
      dx += ARROWS[key]![0] * far;
      dy += ARROWS[key]![1] * far;
    }
    return [dx, dy];
  }
}

/** Lets fingers and arrow keys play a field. */
export function useFieldHand(view: RefObject<View | null>, field: PlayField): FieldHand {
  const { studio } = useStudio();
  const [hand] = useState(() => new FieldHand(field, () => hostOf(studio)));
  const [arrows] = useState(() => new ArrowKeys());
  useEffect(() => hand.setField(field), [hand, field]);
  useEffect(() => () => hand.cancel(), [hand]);
  useEffect(() => {
    const element = elementOf(view.current);
    return element ? listenToFingers(element, hand) : undefined;
  }, [view, hand]);
  useEffect(() => listenToArrows(arrows, hand), [arrows, hand]);
  useFrame(() => {
    const now = performance.now();
    const [dx, dy] = arrows.step(now);
    if (dx !== 0 || dy !== 0) hand.moveBy(dx, dy, false);
    return hand.frame(now);
  });
  return hand;
}

function listenToFingers(element: HTMLElement, hand: FieldHand): () => void {
  const fingers = new Map<number, { x: number; y: number }>();
  let leading: number | null = null;
  element.style.touchAction = 'none';
  const at = (event: PointerEvent): { x: number; y: number } => {
    const box = element.getBoundingClientRect();
    return { x: (event.clientX - box.left) / box.width, y: 1 - (event.clientY - box.top) / box.height };
  };
  const listening = new AbortController();
  const on = { signal: listening.signal };
  element.addEventListener(
    'pointerdown',
    (event) => {
      if (event.button !== 0) return;
      markHand(event);
      element.setPointerCapture(event.pointerId);
      fingers.set(event.pointerId, at(event));
      if (leading !== null) return;
      leading = event.pointerId;
      hand.begin(at(event));
    },
    on,
  );
  element.addEventListener(
    'pointermove',
    (event) => {
      const before = fingers.get(event.pointerId);
      if (!before) return;
      const now = at(event);
      fingers.set(event.pointerId, now);
      if (event.pointerId !== leading) return;
      markHand(event);
      hand.moveBy(now.x - before.x, now.y - before.y, fingers.size > 1);
    },
    on,
  );
  const leave = (event: PointerEvent): void => {
    fingers.delete(event.pointerId);
    if (event.pointerId !== leading) return;
    leading = null;
    markHand(event);
    hand.end(performance.now());
  };
  for (const name of ['pointerup', 'pointercancel', 'lostpointercapture'] as const)
    element.addEventListener(name, leave, on);
  return () => listening.abort();
}

/** Keys that something else in the page has the focus for are left to it. */
const takesArrows = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest(
    '[role=dialog], [role=slider]:not([data-field]), input, textarea, [role=radiogroup], [role=tablist]',
  ) !== null;

function listenToArrows(arrows: ArrowKeys, hand: FieldHand): () => void {
  const { pressed } = arrows;
  const listening = new AbortController();
  const on = { signal: listening.signal };
  document.addEventListener(
    'keydown',
    (event) => {
      arrows.fine = event.shiftKey;
      if (!(event.key in ARROWS) || event.ctrlKey || event.metaKey || event.altKey || takesArrows(event.target)) return;
      event.preventDefault();
      if (event.repeat) return;
      markHand(event);
      if (pressed.size === 0) hand.beginAtRest();
      pressed.add(event.key);
    },
    on,
  );
  const lift = (event: Event): void => {
    if (pressed.size === 0) return;
    if (event instanceof KeyboardEvent) {
      arrows.fine = event.shiftKey;
      pressed.delete(event.key);
    } else pressed.clear();
    if (pressed.size > 0) return;
    markHand(event);
    hand.end(performance.now());
  };
  document.addEventListener('keyup', lift, on);
  window.addEventListener('blur', lift, on);
  return () => listening.abort();
}
