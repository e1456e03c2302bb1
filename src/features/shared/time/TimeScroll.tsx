import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View, type NativeScrollEvent, type NativeSyntheticEvent } from 'react-native';
import { useRecording } from '../../../data/recording';
import { useView } from '../../../data/view';
import { elementOf, useFrame } from '../../../ui/frame';
import { useTokens } from '../../../ui/theme';
import { useStudio } from '../../studio/StudioProvider';
import { MAX_ZOOM } from './ZoomButtons';
import { Playhead } from './Playhead';

interface TimeScrollProps {
  readonly pxPerBeat: number;
  /** Stays in sight at the top of whatever scrolls up and down, along the same time. */
  readonly ruler: ReactNode;
  readonly onScroll?: (event: NativeSyntheticEvent<NativeScrollEvent>) => void;
  readonly children: ReactNode;
}

/** Where the playhead comes in when a page is turned, and where the next turn is due, as shares of the width. */
const ENTERS = 0.12;
const TURNS = 0.92;
/** Time after manual scrolling before the view follows the playhead again. */
const HANDS_OFF_MS = 4000;
/** Wheel delta and pinch ratio of one step of zoom. */
const WHEEL_STEP = 80;
const PINCH_STEP = 1.5;

interface Anchor {
  readonly beat: number;
  readonly x: number;
}

/**
 * Horizontally scrolled time: it pages when the playhead reaches the edge, and zooms by pinch and by wheel with Ctrl
 * about the pointer.
 */
export function TimeScroll({ pxPerBeat, ruler, onScroll, children }: TimeScrollProps) {
  const { studio } = useStudio();
  const tokens = useTokens();
  const head = useRef<View>(null);
  const above = useRef<View>(null);
  const scroll = useRef<ScrollView>(null);
  const touched = useRef(-Infinity);
  const anchor = useRef<Anchor | null>(null);
  const scale = useRef(pxPerBeat);
  const node = (): HTMLElement | null => (scroll.current?.getScrollableNode() as HTMLElement | undefined) ?? null;
  useFrame(() => {
    const view = node();
    if (!view || !useRecording.getState().playing || performance.now() - touched.current < HANDS_OFF_MS) return;
    const x = studio.beat * pxPerBeat - view.scrollLeft;
    if (x > TURNS * view.clientWidth || x < 0) view.scrollLeft = studio.beat * pxPerBeat - ENTERS * view.clientWidth;
  });
  useLayoutEffect(() => {
    const before = scale.current;
    const view = node();
    scale.current = pxPerBeat;
    if (!view || before === pxPerBeat) return;
    const { beat, x } = anchor.current ?? resting(view, studio.beat, before);
    view.scrollLeft = beat * pxPerBeat - x;
    anchor.current = null;
  }, [pxPerBeat, studio]);
  useEffect(() => {
    const view = node();
    const top = elementOf(head.current);
    const moving = elementOf(above.current);
    if (!view || !top || !moving) return undefined;
    top.style.position = 'sticky';
    const follow = (): void => void (moving.style.transform = `translateX(${-view.scrollLeft}px)`);
    follow();
    view.addEventListener('scroll', follow, { passive: true });
    const ends = [view, top].map((part) => listen(part, view, scale, anchor, touched));
    return () => {
      view.removeEventListener('scroll', follow);
      for (const end of ends) end();
    };
  }, []);
  return (
    <>
      <View ref={head} style={[styles.ruler, { backgroundColor: tokens.paper }]}>
        <View ref={above}>
          {ruler}
          <Playhead pxPerBeat={pxPerBeat} />
        </View>
      </View>
      <ScrollView
        ref={scroll}
        horizontal
        showsHorizontalScrollIndicator={false}
        onScroll={onScroll}
        scrollEventThrottle={16}
      >
        {children}
      </ScrollView>
    </>
  );
}

const styles = StyleSheet.create({ ruler: { top: 0, zIndex: 2, overflow: 'hidden' } });

/** Fixed point of a zoom without a pointer: the playhead if it is in sight, else the middle. */
function resting(view: HTMLElement, playhead: number, pxPerBeat: number): Anchor {
  const x = playhead * pxPerBeat - view.scrollLeft;
  if (x >= 0 && x <= view.clientWidth) return { beat: playhead, x };
  const middle = view.clientWidth / 2;
  return { beat: (view.scrollLeft + middle) / pxPerBeat, x: middle };
}

interface Kept<T> {
  current: T;
}

/** @param part element that receives pointers  @param view element that scrolls */
function listen(
  part: HTMLElement,
  view: HTMLElement,
  scale: Kept<number>,
  anchor: Kept<Anchor | null>,
  touched: Kept<number>,
): () => void {
  let turned = 0;
  let apart = 0;
  const zoom = (by: 1 | -1, clientX: number): void => {
    const { zoom: now } = useView.getState();
    const next = Math.min(MAX_ZOOM, Math.max(0, now + by));
    if (next === now) return;
    const x = clientX - view.getBoundingClientRect().left;
    anchor.current = { beat: (view.scrollLeft + x) / scale.current, x };
    useView.setState({ zoom: next });
  };
  const wheel = (event: WheelEvent): void => {
    if (!event.ctrlKey) {
      touched.current = performance.now();
      // The ruler itself does not scroll.
      if (part !== view) view.scrollLeft += event.deltaX;
      return;
    }
    event.preventDefault();
    turned += event.deltaY;
    if (Math.abs(turned) < WHEEL_STEP) return;
    zoom(turned < 0 ? 1 : -1, event.clientX);
    turned = 0;
  };
  const touch = (event: TouchEvent): void => {
    touched.current = performance.now();
    const [a, b] = [event.touches[0], event.touches[1]];
    if (!a || !b) {
      apart = 0;
      return;
    }
    event.preventDefault();
    const now = Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY);
    if (apart === 0) apart = now;
    if (now > apart * PINCH_STEP || now < apart / PINCH_STEP) {
      zoom(now > apart ? 1 : -1, (a.clientX + b.clientX) / 2);
      apart = now;
    }
  };
  part.addEventListener('wheel', wheel, { passive: false });
  part.addEventListener('touchstart', touch, { passive: false });
  part.addEventListener('touchmove', touch, { passive: false });
  part.addEventListener('touchend', touch, { passive: false });
  return () => {
    part.removeEventListener('wheel', wheel);
    part.removeEventListener('touchstart', touch);
    part.removeEventListener('touchmove', touch);
    part.removeEventListener('touchend', touch);
  };
}
