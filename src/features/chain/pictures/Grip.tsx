import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Handle, Pull } from '../../../core/effects/pictures';
import { Circle } from 'react-native-svg';
import { useDrag } from '../../../ui/pointer';
import { useTokens } from '../../../ui/theme';

/** New values of parameters while a picture is dragged; `done` when it is let go. */
export type OnPull = (values: Readonly<Record<string, number>>, done: boolean) => void;

/** What a chart with handles is given. */
export interface HandledChartProps<Picture> {
  readonly picture: Picture;
  readonly width: number;
  readonly height: number;
  readonly onPull: OnPull;
}

interface GripProps {
  readonly handle: Handle;
  /** Place in pixels. */
  readonly at: { readonly x: number; readonly y: number };
  /** Back from pixels to the units of the axes. */
  readonly unitX: (x: number) => number;
  readonly unitY: (y: number) => number;
  readonly onPull: OnPull;
}

interface GripsProps extends Pick<GripProps, 'unitX' | 'unitY' | 'onPull'> {
  readonly handles: readonly Handle[];
  /** Where a handle is, in pixels. */
  readonly at: (handle: Handle) => GripProps['at'];
}

/** What can be dragged in a picture; of two at the same place the last is taken. */
export function Grips({ handles, at, unitX, unitY, onPull }: GripsProps) {
  return handles.map((handle) => (
    <Grip key={handle.label} handle={handle} at={at(handle)} unitX={unitX} unitY={unitY} onPull={onPull} />
  ));
}

interface HandleDotProps {
  readonly x: number;
  readonly y: number;
  readonly radius?: number;
  readonly strokeWidth?: number;
}

/** A handle as it is drawn. */
export function HandleDot({ x, y, radius = 8, strokeWidth = 2.6 }: HandleDotProps) {
  const { card, sea } = useTokens();
  return <Circle cx={x} cy={y} r={radius} fill={card} stroke={sea} strokeWidth={strokeWidth} />;
}

/** A place of a picture that can be taken hold of. The rails below do the same for keyboard and screen reader. */
function Grip({ handle, at, unitX, unitY, onPull }: GripProps) {
  const view = useRef<View>(null);
  const held = useRef<GripProps | null>(null);
  const pull = (dx: number, dy: number, done: boolean): void => {
    const from = held.current;
    if (!from) return;
    const values: Record<string, number> = {};
    const { pullX, pullY, x, y } = from.handle;
    if (pullX) values[pullX.param] = pulled(pullX, x, from.unitX(from.at.x + dx));
    if (pullY) values[pullY.param] = pulled(pullY, y, from.unitY(from.at.y + dy));
    onPull(values, done);
  };
  useDrag(
    view,
    {
      begin: () => {
        held.current = { handle, at, unitX, unitY, onPull };
      },
      move: (drag) => pull(drag.x - drag.startX, drag.y - drag.startY, false),
      end: (drag) => pull(drag.x - drag.startX, drag.y - drag.startY, true),
    },
    'none',
  );
  return <View ref={view} aria-hidden style={[styles.grip, { left: at.x - 22, top: at.y - 22 }]} />;
}

function pulled({ value, by, scale, min, max }: Pull, from: number, to: number): number {
  const next = by === 'add' ? value + (to - from) * scale : value * Math.pow(to / from, scale);
  return Math.min(max, Math.max(min, next));
}

const styles = StyleSheet.create({ grip: { position: 'absolute', width: 44, height: 44, cursor: 'pointer' } });
