import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { MAX_STEPS } from '../../../core/automation/modulator';
import { elementOf, useFrame } from '../../../ui/frame';
import { useDrag, useKeys, type Drag } from '../../../ui/pointer';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';

const HIGH = 96;
const KEY_STEP = 0.1;

const held = (value: number): number => Math.round(Math.max(-1, Math.min(1, value)) * 50) / 50;

interface StepRowProps {
  readonly noun: 'step' | 'point';
  readonly steps: readonly number[];
  readonly onChange: (steps: readonly number[]) => void;
  readonly min?: number;
  readonly max?: number;
  /** Indices of steps that are switched off, and how one is switched; where steps can be. */
  readonly off?: readonly number[];
  readonly onSwitch?: (index: number) => void;
  /** The step that sounds now, -1 for none. */
  readonly sounding?: () => number;
}

/**
 * Steps, or the points of a drawn form, as bars to both sides of a line: drawn with one stroke, or chosen and moved by
 * the arrow keys.
 */
export function StepRow({
  noun,
  steps,
  onChange,
  min = 2,
  max = MAX_STEPS,
  off = [],
  onSwitch,
  sounding,
}: StepRowProps) {
  const tokens = useTokens();
  const field = useRef<View>(null);
  const [drawn, setDrawn] = useState<readonly number[] | null>(null);
  const [chosen, setChosen] = useState(0);
  const shown = drawn ?? steps;
  const stroke = useRef<readonly number[]>(steps);
  const put = (drag: Pick<Drag, 'x' | 'y' | 'width' | 'height'>): void => {
    const index = Math.max(0, Math.min(steps.length - 1, Math.floor((drag.x / drag.width) * steps.length)));
    stroke.current = stroke.current.map((value, i) => (i === index ? held(1 - (2 * drag.y) / drag.height) : value));
    setChosen(index);
    setDrawn(stroke.current);
  };
  useDrag(
    field,
    {
      begin: (drag) => {
        stroke.current = steps;
        put({ ...drag, x: drag.startX, y: drag.startY });
      },
      move: put,
      end: (_drag, cancelled) => {
        if (!cancelled) onChange(stroke.current);
        setDrawn(null);
      },
      tap: (drag) => {
        stroke.current = steps;
        put(drag);
        onChange(stroke.current);
        setDrawn(null);
      },
    },
    'none',
  );
  useKeys(field, (event) => {
    const aside = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const up = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (aside !== 0) setChosen((before) => Math.max(0, Math.min(steps.length - 1, before + aside)));
    else if (up !== 0) onChange(steps.map((value, i) => (i === chosen ? held(value + up * KEY_STEP) : value)));
    return aside !== 0 || up !== 0;
  });
  const place = Math.min(chosen, steps.length - 1);
  const count = (next: number): void =>
    onChange(next < steps.length ? steps.slice(0, next) : [...steps, ...steps].slice(0, next));
  return (
    <View>
      <View style={styles.head}>
        <Text style={styles.name}>{`${steps.length} ${noun}s`}</Text>
        <IconButton
          icon="minus"
          label={`One ${noun} less`}
          disabled={steps.length <= min}
          onPress={() => count(steps.length - 1)}
        />
        <IconButton
          icon="plus"
          label={`One ${noun} more`}
          disabled={steps.length >= max}
          onPress={() => count(steps.length + 1)}
        />
        {onSwitch ? (
          <IconButton
            icon={off.includes(place) ? 'circle' : 'slash'}
            label={`Switch ${noun} ${place + 1} ${off.includes(place) ? 'on' : 'off'}`}
            onPress={() => onSwitch(place)}
          />
        ) : null}
        <IconButton
          icon="refresh-cw"
          label={`Throw ${noun} ${place + 1} anew`}
          onPress={() => onChange(steps.map((value, i) => (i === place ? held(2 * Math.random() - 1) : value)))}
        />
        <IconButton
          icon="shuffle"
          label={`Throw all ${noun}s anew`}
          onPress={() => onChange(steps.map(() => held(2 * Math.random() - 1)))}
        />
      </View>
      <View
        ref={field}
        role="slider"
        tabIndex={0}
        aria-label={`${noun === 'step' ? 'Steps' : 'Points'}. Left and right choose one, up and down move it`}
        aria-valuemin={-100}
        aria-valuemax={100}
        aria-valuenow={Math.round(shown[place]! * 100)}
        aria-valuetext={`${noun} ${place + 1} of ${steps.length}, ${off.includes(place) ? 'off' : `${Math.round(shown[place]! * 100)} %`}`}
        style={[styles.field, { backgroundColor: tokens.paper, borderColor: tokens.line }]}
      >
        {shown.map((value, i) => (
          <View key={i} style={[styles.column, i === place && { backgroundColor: tokens.coralSoft }]}>
            <View
              style={[
                styles.bar,
                {
                  backgroundColor: off.includes(i) ? tokens.line : tokens.coral,
                  top: (HIGH / 2) * (1 - Math.max(0, value)),
                  height: Math.max(3, (HIGH / 2) * Math.abs(value)),
                },
              ]}
            />
          </View>
        ))}
        <View style={[styles.line, { backgroundColor: tokens.mute }]} />
        {sounding ? <SoundingStep count={steps.length} sounding={sounding} /> : null}
      </View>
    </View>
  );
}

/** Marks the step that sounds. */
function SoundingStep({ count, sounding }: { readonly count: number; readonly sounding: () => number }) {
  const tokens = useTokens();
  const mark = useRef<View>(null);
  useFrame(() => {
    const element = elementOf(mark.current);
    if (!element) return;
    const step = sounding();
    element.style.opacity = step < 0 ? '0' : '1';
    if (step >= 0) element.style.left = `${(100 * step) / count}%`;
  });
  return (
    <View
      ref={mark}
      testID="sounding step"
      style={[styles.sounding, { width: `${100 / count}%`, borderColor: tokens.ink }]}
    />
  );
}

const styles = StyleSheet.create({
  head: { flexDirection: 'row', alignItems: 'center' },
  name: { flex: 1 },
  field: {
    height: HIGH,
    flexDirection: 'row',
    borderRadius: 10,
    borderWidth: 1,
    overflow: 'hidden',
    userSelect: 'none',
    cursor: 'pointer',
  },
  column: { flex: 1, pointerEvents: 'none' },
  bar: { position: 'absolute', left: 2, right: 2, borderRadius: 2 },
  sounding: { position: 'absolute', top: 0, bottom: 0, borderWidth: 2, borderRadius: 4, pointerEvents: 'none' },
  line: { position: 'absolute', left: 0, right: 0, top: HIGH / 2, height: 1, pointerEvents: 'none' },
});
