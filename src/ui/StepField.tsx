import { useRef, useState, type ReactNode, type RefObject } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDrag, useKeys, type Drag } from './pointer';
import { useTokens } from './theme';

interface DrawnSteps {
  readonly values: readonly number[];
  /** The value of a step at a height of the field. @param y 0 at its top, 1 at its foot */
  valueAt(y: number): number;
  /** The value after an arrow key. @param up 1 or -1 */
  moved(value: number, up: 1 | -1): number;
  onChange(values: readonly number[]): void;
}

export interface StepFieldState {
  readonly field: RefObject<View | null>;
  /** The values, with those of a stroke that is not finished. */
  readonly shown: readonly number[];
  /** Index of the step that arrow keys move. */
  readonly chosen: number;
}

/** A row of steps side by side, whose values are drawn with one stroke, or chosen and moved by the arrow keys. */
export function useStepField({ values, valueAt, moved, onChange }: DrawnSteps): StepFieldState {
  const field = useRef<View>(null);
  const [drawn, setDrawn] = useState<readonly number[] | null>(null);
  const [wanted, setChosen] = useState(0);
  const stroke = useRef(values);
  const last = values.length - 1;
  const chosen = Math.min(wanted, last);
  const put = ({ x, y, width, height }: Pick<Drag, 'x' | 'y' | 'width' | 'height'>): void => {
    const index = Math.max(0, Math.min(last, Math.floor((x / width) * values.length)));
    stroke.current = stroke.current.map((value, i) => (i === index ? valueAt(y / height) : value));
    setChosen(index);
    setDrawn(stroke.current);
  };
  const begin = (drag: Drag, x: number, y: number): void => {
    stroke.current = values;
    put({ ...drag, x, y });
  };
  const end = (cancelled: boolean): void => {
    if (!cancelled) onChange(stroke.current);
    setDrawn(null);
  };
  useDrag(
    field,
    {
      begin: (drag) => begin(drag, drag.startX, drag.startY),
      move: put,
      end: (_drag, cancelled) => end(cancelled),
      tap: (drag) => {
        begin(drag, drag.x, drag.y);
        end(false);
      },
    },
    'none',
  );
  useKeys(field, ({ key }) => {
    const aside = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0;
    const up = key === 'ArrowUp' ? 1 : key === 'ArrowDown' ? -1 : 0;
    if (aside !== 0) setChosen(Math.max(0, Math.min(last, chosen + aside)));
    if (up !== 0) onChange(values.map((value, i) => (i === chosen ? moved(value, up) : value)));
    return aside !== 0 || up !== 0;
  });
  return { field, shown: drawn ?? values, chosen };
}

interface StepFieldProps {
  readonly state: StepFieldState;
  /** Spoken: what it is, and what the arrow keys do. */
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly now: number;
  /** The chosen step in words. */
  readonly text: string;
  readonly height: number;
  /** One step, drawn in a column. */
  readonly renderStep: (value: number, index: number) => ReactNode;
  /** Over the steps. */
  readonly children?: ReactNode;
}

/** The field of `useStepField`. */
export function StepField({ state, label, min, max, now, text, height, renderStep, children }: StepFieldProps) {
  const tokens = useTokens();
  const { field, shown, chosen } = state;
  return (
    <View
      ref={field}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={now}
      aria-valuetext={text}
      style={[styles.field, { height, minHeight: height, backgroundColor: tokens.paper, borderColor: tokens.line }]}
    >
      {shown.map((value, i) => (
        <View key={i} style={[styles.column, i === chosen && { backgroundColor: tokens.coralSoft }]}>
          {renderStep(value, i)}
        </View>
      ))}
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  // Its least height is given besides, since in a column it would shrink to nothing.
  field: {
    flex: 1,
    flexDirection: 'row',
    borderRadius: 10,
    borderWidth: 1,
    overflow: 'hidden',
    userSelect: 'none',
    cursor: 'pointer',
  },
  column: { flex: 1, pointerEvents: 'none' },
});
