import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { drawnShape, DRAWN_SHAPES, type DrawnShape, type LaneRange } from '../../core/piece/moves/laneRange';
import { ratio, time } from '../../core/params/make';
import { beatsToMs, toEngineNumber } from '../../core/params/resolve';
import type { ParamValue } from '../../core/params/param';
import { contextOf } from '../../core/piece/find';
import { Rail } from '../../ui/Rail';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';

const TURN = time({
  label: 'One turn',
  group: 'Shape',
  hint: 'How long the shape takes once.',
  initial: '1/1',
  max: 60_000,
});
const LOW = ratio({ label: 'From', group: 'Shape', hint: 'The lowest place on the rail.', initial: 0 });
const HIGH = ratio({ label: 'To', group: 'Shape', hint: 'The highest place on the rail.', initial: 1 });
const ICON = { width: 44, height: 20 };

interface DrawShapeProps {
  readonly range: { readonly start: number; readonly end: number };
  readonly onDraw: (stretch: LaneRange, name: string) => boolean;
}

/** Draws a shape into the chosen stretch, at a note rate, between two places of the rail. */
export function DrawShape({ range, onDraw }: DrawShapeProps) {
  const context = contextOf(usePiece());
  const [open, setOpen] = useState(false);
  const [turn, setTurn] = useState<ParamValue>('1/1');
  const [low, setLow] = useState(0.1);
  const [high, setHigh] = useState(0.9);
  const length = range.end - range.start;
  const make = (shape: DrawnShape, roll: number): LaneRange =>
    drawnShape(shape, length, toEngineNumber(TURN, turn, context) / beatsToMs(1, context), low, high, roll);
  return (
    <>
      <Button label="Draw a shape into the stretch" onPress={() => setOpen(true)}>
        draw …
      </Button>
      <Sheet title="Draw into the stretch" visible={open} onClose={() => setOpen(false)}>
        <View style={styles.shapes}>
          {DRAWN_SHAPES.map((shape) => (
            <Touchable
              key={shape}
              label={`Draw ${shape}`}
              mode="outlined"
              style={styles.shape}
              onPress={() => onDraw(make(shape, Math.floor(Math.random() * 1e9)), shape) && setOpen(false)}
            >
              <Icon shape={shape} />
            </Touchable>
          ))}
        </View>
        <Rail param={TURN} value={turn} context={context} look="plain" onTouch={() => undefined} onSet={setTurn} />
        <Rail
          param={LOW}
          value={low}
          context={context}
          look="plain"
          onTouch={() => undefined}
          onSet={(value) => typeof value === 'number' && setLow(value)}
        />
        <Rail
          param={HIGH}
          value={high}
          context={context}
          look="plain"
          onTouch={() => undefined}
          onSet={(value) => typeof value === 'number' && setHigh(value)}
        />
      </Sheet>
    </>
  );
}

/** Two turns of the shape. */
function Icon({ shape }: { readonly shape: DrawnShape }) {
  const tokens = useTokens();
  const { points } = drawnShape(shape, 2, 1, 0, 1, 4);
  const x = (beat: number): string => ((beat / 2) * ICON.width).toFixed(1);
  const y = (position: number): string => (2 + (1 - position) * (ICON.height - 4)).toFixed(1);
  const path = points
    .map(
      (point, i) =>
        `${i === 0 ? 'M' : points[i - 1]!.shape === 'hold' ? `H${x(point.beat)}L` : 'L'}${x(point.beat)} ${y(point.position)}`,
    )
    .join('');
  return (
    <Svg width={ICON.width} height={ICON.height}>
      <Path d={path} stroke={tokens.coral} strokeWidth={2} fill="none" strokeLinejoin="round" />
    </Svg>
  );
}

const styles = StyleSheet.create({
  shapes: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
  shape: { flexGrow: 1, minWidth: 96, height: 52 },
});
