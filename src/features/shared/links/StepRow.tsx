import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { MAX_STEPS } from '../../../core/automation/modulator';
import { resizedSteps } from '../../../core/piece/edits/runs';
import { elementOf, useFrame } from '../../../ui/frame';
import { IconButton } from '../../../ui/IconButton';
import { StepField, useStepField } from '../../../ui/StepField';
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
  const state = useStepField({
    values: steps,
    valueAt: (y) => held(1 - 2 * y),
    moved: (value, up) => held(value + up * KEY_STEP),
    onChange,
  });
  const { shown, chosen } = state;
  const count = (next: number): void => onChange(resizedSteps(steps, next));
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
            icon={off.includes(chosen) ? 'circle' : 'slash'}
            label={`Switch ${noun} ${chosen + 1} ${off.includes(chosen) ? 'on' : 'off'}`}
            onPress={() => onSwitch(chosen)}
          />
        ) : null}
        <IconButton
          icon="refresh-cw"
          label={`Randomise ${noun} ${chosen + 1}`}
          onPress={() => onChange(steps.map((value, i) => (i === chosen ? held(2 * Math.random() - 1) : value)))}
        />
        <IconButton
          icon="shuffle"
          label={`Randomise all ${noun}s`}
          onPress={() => onChange(steps.map(() => held(2 * Math.random() - 1)))}
        />
      </View>
      <StepField
        state={state}
        label={`${noun === 'step' ? 'Steps' : 'Points'}. Left and right choose one, up and down move it`}
        min={-100}
        max={100}
        now={Math.round(shown[chosen]! * 100)}
        text={`${noun} ${chosen + 1} of ${steps.length}, ${off.includes(chosen) ? 'off' : `${Math.round(shown[chosen]! * 100)} %`}`}
        height={HIGH}
        renderStep={(value, i) => (
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
        )}
      >
        <View style={[styles.line, { backgroundColor: tokens.mute }]} />
        {sounding ? <SoundingStep count={steps.length} sounding={sounding} /> : null}
      </StepField>
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
  bar: { position: 'absolute', left: 2, right: 2, borderRadius: 2 },
  sounding: { position: 'absolute', top: 0, bottom: 0, borderWidth: 2, borderRadius: 4, pointerEvents: 'none' },
  line: { position: 'absolute', left: 0, right: 0, top: HIGH / 2, height: 1, pointerEvents: 'none' },
});
