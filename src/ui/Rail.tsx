import { useMemo, useRef, useState, type RefObject } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue } from '../core/params/format';
import type { Param, ParamValue, ValueContext } from '../core/params/param';
import { notchesOf, settingAt, stepSetting } from '../core/params/notches';
import { paramPosition, toEngineNumber } from '../core/params/resolve';
import { clampNumber } from '../core/params/taper';
import { useDrag, useKeys, type Drag } from './pointer';
import { RailValue } from './RailValue';
import { useTokens } from './theme';
import { TOUCH } from './tokens';
import { useWheel } from './wheel';
import { Text } from './Text';

export interface RailLane {
  /** The range of the rail that the lane covers, 0-1. */
  readonly low: number;
  readonly high: number;
  /** Place of the lane at this moment, read every frame. */
  live(): number;
}

export type RailLook = 'wet' | 'mix' | 'plain';

interface RailProps {
  readonly param: Param;
  readonly value: ParamValue;
  readonly context: ValueContext;
  /** Called while it is dragged: heard at once, not yet part of the piece. */
  readonly onTouch: (value: ParamValue) => void;
  /** Called on release, or when a value was typed or stepped: it becomes part of the piece. */
  readonly onSet: (value: ParamValue) => void;
  readonly lane?: RailLane;
  /** `wet` for what an effect does, `mix` for sea over sand, `plain` for a channel's own level and place. */
  readonly look?: RailLook;
  readonly laneMark?: RefObject<View | null>;
  readonly initial?: ParamValue;
  /** Spoken in place of its label, where others in view have the same. */
  readonly spoken?: string | undefined;
}

/** Reach of a notch, as a share of the rail. */
const CATCH = 0.012;
/** A drag that begins within this distance moves the handle relatively; elsewhere the handle jumps to the pointer. */
const GRIP_PX = 30;

/** Dragging away from the rail makes it finer. */
function fineness(y: number, height: number): number {
  const away = Math.abs(y - height / 2);
  return away > 140 ? 0.05 : away > 60 ? 0.25 : 1;
}

/**
 * The control of the product: a horizontal rail that is dragged, finely dragged, typed, stepped by key or wheel, and
 * reset by a double tap.
 */
export function Rail({
  param,
  value,
  context,
  onTouch,
  onSet,
  lane,
  look = 'wet',
  laneMark,
  initial,
  spoken,
}: RailProps) {
  const tokens = useTokens();
  const track = useRef<View>(null);
  const [held, setHeld] = useState<{ position: number; value: ParamValue } | null>(null);
  const notches = useMemo(() => notchesOf(param, context), [param, context]);
  const shown = held?.value ?? value;
  const position = paramPosition(param, toEngineNumber(param, shown, context));

  const reset = (): void => onSet(initial ?? param.initial);
  const grip = useRef({ position: 0, value });
  const touch = (at: number, fine: boolean): void => {
    const next = settingAt(param, at, context, fine ? 0 : CATCH, notches);
    grip.current = { position: at, value: next };
    setHeld(grip.current);
    onTouch(next);
  };
  useDrag(track, {
    begin: (drag) => {
      const near = Math.abs(drag.startX - position * drag.width) < GRIP_PX;
      touch(clampNumber(near ? position : drag.startX / drag.width, 0, 1), false);
    },
    move: (drag: Drag) => {
      const scale = fineness(drag.y, drag.height);
      touch(clampNumber(grip.current.position + (drag.dx / drag.width) * scale, 0, 1), scale < 1);
    },
    end: (_drag, cancelled) => {
      const last = grip.current.value;
      setHeld(null);
      if (cancelled) onTouch(value);
      onSet(cancelled ? value : last);
    },
    tap: (drag, again) => {
      if (again) reset();
      else if (Math.abs(drag.x - position * drag.width) > GRIP_PX / 2)
        onSet(settingAt(param, drag.x / drag.width, context, CATCH, notches));
    },
  });
  useKeys(track, (event) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      reset();
      return true;
    }
    const next = keyed(event, param, value, context);
    if (next === null) return false;
    onSet(next);
    return true;
  });
  useWheel(track, (direction) => onSet(stepSetting(param, value, context, direction, 'normal')));
  const said = formatValue(param, shown, context);
  return (
    <View style={styles.rail}>
      <View style={styles.head}>
        <Text numberOfLines={1} style={styles.name}>
          {param.label}
        </Text>
        <RailValue param={param} name={spoken ?? param.label} value={shown} context={context} onSet={onSet} />
      </View>
      <View
        ref={track}
        role="slider"
        tabIndex={0}
        aria-label={spoken ?? param.label}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(position * 1000) / 10}
        aria-valuetext={said}
        style={styles.touch}
      >
        <View
          style={[
            styles.line,
            look === 'mix' && styles.thick,
            { backgroundColor: look === 'mix' ? tokens.sand : tokens.line },
          ]}
        />
        <View
          style={[
            styles.line,
            look === 'mix' && styles.thick,
            filled(param, position),
            { backgroundColor: look === 'plain' ? tokens.mute : tokens.sea },
          ]}
        />
        {lane ? (
          <View
            style={[
              styles.lane,
              {
                backgroundColor: tokens.coral,
                left: `${lane.low * 100}%`,
                width: `${Math.max(0.5, (lane.high - lane.low) * 100)}%`,
              },
            ]}
          />
        ) : null}
        {lane ? <View ref={laneMark} style={[styles.laneMark, { borderTopColor: tokens.coral }]} /> : null}
        {notches.map((notch, i) => (
          <View
            key={i}
            style={[
              styles.notch,
              {
                left: `${notch.position * 100}%`,
                height: notch.major ? 7 : 4,
                backgroundColor: notch.major ? tokens.mute : tokens.line,
              },
            ]}
          />
        ))}
        <View
          style={[
            styles.thumb,
            {
              left: `${position * 100}%`,
              borderColor: tokens.ink,
              backgroundColor: held ? tokens.seaSoft : tokens.card,
            },
          ]}
        />
      </View>
    </View>
  );
}

/** The filled part: from the left end, or from zero where a value may be to either side of it. */
function filled(param: Param, position: number): { left: `${number}%`; right: `${number}%` } {
  const from = param.kind === 'number' && param.min < 0 && param.max > 0 ? paramPosition(param, 0) : 0;
  return { left: `${Math.min(from, position) * 100}%`, right: `${(1 - Math.max(from, position)) * 100}%` };
}

function keyed(event: KeyboardEvent, param: Param, value: ParamValue, context: ValueContext): ParamValue | null {
  const size = event.shiftKey ? 'fine' : 'normal';
  if (event.key === 'ArrowRight' || event.key === 'ArrowUp') return stepSetting(param, value, context, 1, size);
  if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') return stepSetting(param, value, context, -1, size);
  if (event.key === 'PageUp') return stepSetting(param, value, context, 1, 'large');
  if (event.key === 'PageDown') return stepSetting(param, value, context, -1, 'large');
  if (event.key === 'Home') return settingAt(param, 0, context, 0);
  if (event.key === 'End') return settingAt(param, 1, context, 0);
  return null;
}

/** A switch in the layout of a rail: name at the left, state at the right, all of it touchable. */
export function SwitchRail({
  param,
  value,
  onSet,
  spoken = param.label,
}: {
  readonly param: Param;
  readonly value: ParamValue;
  readonly onSet: (value: ParamValue) => void;
  readonly spoken?: string | undefined;
}) {
  const tokens = useTokens();
  const on = value === true;
  return (
    <Pressable role="switch" aria-checked={on} aria-label={spoken} onPress={() => onSet(!on)} style={styles.switchRow}>
      <Text style={styles.name}>{param.label}</Text>
      <View
        style={[
          styles.switch,
          { borderColor: on ? tokens.sea : tokens.mute, backgroundColor: on ? tokens.seaSoft : 'transparent' },
        ]}
      >
        <View style={[styles.knob, { backgroundColor: on ? tokens.sea : tokens.mute, marginLeft: on ? 22 : 2 }]} />
      </View>
      <Text variant="titleSmall" style={styles.switchText}>
        {on ? 'on' : 'off'}
      </Text>
    </Pressable>
  );
}

/** A choice: every option in sight. */
export function ChoiceRail({
  param,
  value,
  onSet,
  spoken = param.label,
}: {
  readonly param: Extract<Param, { kind: 'choice' }>;
  readonly value: ParamValue;
  readonly onSet: (value: ParamValue) => void;
  readonly spoken?: string | undefined;
}) {
  const tokens = useTokens();
  return (
    <View style={styles.rail}>
      <Text>{param.label}</Text>
      <View role="radiogroup" aria-label={spoken} style={styles.choices}>
        {param.options.map((option) => {
          const chosen = option.id === value;
          return (
            <Pressable
              key={option.id}
              role="radio"
              aria-checked={chosen}
              onPress={() => onSet(option.id)}
              style={[
                styles.choice,
                {
                  borderColor: chosen ? tokens.sea : tokens.line,
                  backgroundColor: chosen ? tokens.seaSoft : 'transparent',
                },
              ]}
            >
              <Text numberOfLines={1} variant={chosen ? 'titleSmall' : 'bodyMedium'}>
                {option.label}
              </Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  rail: { paddingTop: 4, minWidth: 0 },
  head: { flexDirection: 'row', alignItems: 'flex-end', justifyContent: 'space-between', gap: 8, minHeight: 24 },
  name: { flexShrink: 1 },
  touch: { height: TOUCH, justifyContent: 'center', cursor: 'pointer', marginHorizontal: 9, userSelect: 'none' },
  line: { position: 'absolute', left: 0, right: 0, height: 4, borderRadius: 2 },
  thick: { height: 9, borderRadius: 5 },
  lane: { position: 'absolute', height: 3, top: 12, borderRadius: 2 },
  laneMark: {
    position: 'absolute',
    top: 4,
    left: 0,
    width: 0,
    height: 0,
    marginLeft: -5,
    borderLeftWidth: 5,
    borderRightWidth: 5,
    borderTopWidth: 7,
    borderLeftColor: 'transparent',
    borderRightColor: 'transparent',
  },
  notch: { position: 'absolute', width: 1, top: 30 },
  thumb: { position: 'absolute', width: 14, height: 26, marginLeft: -7, borderRadius: 7, borderWidth: 2 },
  switchRow: { minHeight: TOUCH, flexDirection: 'row', alignItems: 'center', gap: 10 },
  switch: { width: 44, height: 24, borderRadius: 12, borderWidth: 1.5, justifyContent: 'center', marginLeft: 'auto' },
  knob: { width: 17, height: 17, borderRadius: 9 },
  switchText: { width: 28 },
  choices: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingVertical: 6 },
  choice: {
    flexGrow: 1,
    minHeight: TOUCH,
    minWidth: 62,
    paddingHorizontal: 8,
    borderWidth: 1,
    borderRadius: 12,
    alignItems: 'center',
    justifyContent: 'center',
  },
});
