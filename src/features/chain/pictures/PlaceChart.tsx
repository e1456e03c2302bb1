import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Circle, G, Line, Path } from 'react-native-svg';
import type { PlacePicture } from '../../../core/effects/pictures';
import { useDrag, type Drag } from '../../../ui/pointer';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import type { OnPull } from './Grip';

interface PlaceChartProps {
  readonly picture: PlacePicture;
  readonly width: number;
  readonly height: number;
  /** True while a path is drawn: a stroke sets its corners; otherwise it moves the sound. */
  readonly drawing: boolean;
  readonly onPull: OnPull;
}

const RINGS = [1, 2, 5, 10, 20, 30];
const CORNERS = 8;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** A map around the listener, seen from above: drag the sound, or draw its path. */
export function PlaceChart({ picture, width, height, drawing, onPull }: PlaceChartProps) {
  const tokens = useTokens();
  const view = useRef<View>(null);
  const [stroke, setStroke] = useState<readonly Spot[]>([]);
  const reach = RINGS.find((ring) => ring >= picture.farthest * 1.05) ?? 30;
  const scale = (height / 2 - 14) / Math.sqrt(reach);
  /** Distances by their root, so that near and far both have room. */
  const at = ({ x, y }: Spot): Spot => {
    const far = Math.hypot(x, y);
    const root = far === 0 ? 0 : (Math.sqrt(far) / far) * scale;
    return { x: width / 2 + x * root, y: height / 2 - y * root };
  };
  const metres = ({ x, y }: Spot): Spot => {
    const [px, py] = [x - width / 2, height / 2 - y];
    const root = Math.hypot(px, py) / scale;
    return root === 0 ? { x: 0, y: 0.1 } : { x: (px / scale) * root, y: (py / scale) * root };
  };
  const set = (drag: Drag, done: boolean): void => {
    const { x, y } = metres(drag);
    onPull(
      {
        direction: (Math.round((Math.atan2(x, y) * 180) / Math.PI) + 360) % 360,
        distance: Number(Math.min(30, Math.max(0.3, Math.hypot(x, y))).toPrecision(3)),
      },
      done,
    );
  };
  useDrag(
    view,
    {
      begin: (drag) => (drawing ? setStroke([metres(drag)]) : set(drag, false)),
      move: (drag) => (drawing ? setStroke((before) => [...before, metres(drag)]) : set(drag, false)),
      end: (drag) => {
        if (drawing) onPull(cornersOf([...stroke, metres(drag)]), true);
        else set(drag, true);
        setStroke([]);
      },
    },
    'none',
  );
  const path = (spots: readonly Spot[]): string => linePath(spots.map(at));
  const spot = at(picture.at);
  const ear = at({ x: 0, y: 0 });
  return (
    <ChartFrame
      label={describe(picture)}
      width={width}
      height={height}
      over={<View ref={view} aria-hidden style={[StyleSheet.absoluteFill, styles.touch]} />}
    >
      {RINGS.filter((ring) => ring <= reach).map((ring) => (
        <G key={ring}>
          <Circle cx={ear.x} cy={ear.y} r={Math.sqrt(ring) * scale} fill="none" stroke={tokens.line} strokeWidth={1} />
          <ChartText
            x={ear.x + Math.sqrt(ring) * scale * 0.71 + 2}
            y={ear.y + Math.sqrt(ring) * scale * 0.71 + 10}
          >{`${ring} m`}</ChartText>
        </G>
      ))}
      <Path d={path(picture.path)} stroke={tokens.sea} strokeWidth={1.8} strokeDasharray="5 4" fill="none" />
      <Path d={path(stroke)} stroke={tokens.sea} strokeWidth={3} fill="none" />
      <Line x1={ear.x} y1={ear.y} x2={spot.x} y2={spot.y} stroke={tokens.sea} strokeWidth={1} />
      <Circle cx={ear.x} cy={ear.y} r={10} fill={tokens.card} stroke={tokens.ink} strokeWidth={2} />
      <Path d={`M${ear.x - 4} ${ear.y - 9}L${ear.x} ${ear.y - 16}L${ear.x + 4} ${ear.y - 9}`} fill={tokens.ink} />
      <Circle cx={spot.x} cy={spot.y} r={12} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={3} />
      <ChartText
        x={12}
        y={20}
        strong
      >{`${(Math.abs(picture.itdMs) * 1000).toFixed(0)} µs · ${Math.abs(picture.ildDb).toFixed(1)} dB`}</ChartText>
      <ChartText x={12} y={36}>
        {Math.abs(picture.ildDb) < 0.05 ? 'both ears alike' : picture.ildDb > 0 ? 'right ear first' : 'left ear first'}
      </ChartText>
      {drawing ? (
        <ChartText x={12} y={height - 10}>
          draw a path
        </ChartText>
      ) : null}
    </ChartFrame>
  );
}

/** Corners evenly along a stroke, as the placer's own parameters. */
function cornersOf(stroke: readonly Spot[]): Record<string, number> {
  const values: Record<string, number> = {};
  for (let i = 0; i < CORNERS; i += 1) {
    const spot = stroke[Math.round((i / CORNERS) * (stroke.length - 1))]!;
    values[`x${i + 1}`] = Number(Math.max(-30, Math.min(30, spot.x)).toFixed(2));
    values[`y${i + 1}`] = Number(Math.max(-30, Math.min(30, spot.y)).toFixed(2));
  }
  return values;
}

function describe({ at, path, itdMs, ildDb }: PlacePicture): string {
  const degrees = (Math.round((Math.atan2(at.x, at.y) * 180) / Math.PI) + 360) % 360;
  const moves = path.length > 0 ? ' It moves along a path.' : '';
  return `Map: the sound is at ${degrees} degrees, ${Math.hypot(at.x, at.y).toFixed(1)} metres. Ears ${Math.abs(itdMs * 1000).toFixed(0)} microseconds and ${Math.abs(ildDb).toFixed(1)} dB apart.${moves}`;
}

const styles = StyleSheet.create({ touch: { cursor: 'pointer' } });
