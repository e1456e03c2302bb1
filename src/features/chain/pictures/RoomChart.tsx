import { Circle, G, Line, Path, Rect } from 'react-native-svg';
import type { RoomPicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type HandledChartProps } from './Grip';

const PAD = 26;

/** A room from above: drag its right and back wall, the sound and yourself; lines are the first reflections. */
export function RoomChart({ picture, width, height, onPull }: HandledChartProps<RoomPicture>) {
  const tokens = useTokens();
  const scale = Math.min((width - 2 * PAD - 130) / picture.width, (height - 2 * PAD) / picture.depth);
  const left = PAD;
  const top = (height - picture.depth * scale) / 2;
  const x = (metres: number): number => left + metres * scale;
  const y = (metres: number): number => top + metres * scale;
  const { source, listener } = picture;
  const seconds = (octave: number): string => `${picture.decays[octave]!.toFixed(2)} s`;
  return (
    <ChartFrame
      label={describe(picture)}
      width={width}
      height={height}
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => (px - left) / scale}
          unitY={(py) => (py - top) / scale}
          onPull={onPull}
        />
      }
    >
      <Rect
        x={x(0)}
        y={y(0)}
        width={picture.width * scale}
        height={picture.depth * scale}
        fill={tokens.paper}
        stroke={tokens.ink}
        strokeWidth={2.5}
      />
      {picture.firsts.map((first, i) => (
        <G key={i}>
          <Path
            d={`M${x(source.x)} ${y(source.y)}L${x(first.x)} ${y(first.y)}L${x(listener.x)} ${y(listener.y)}`}
            stroke={tokens.sea}
            strokeWidth={1.4}
            strokeDasharray="5 4"
            fill="none"
          />
        </G>
      ))}
      <Line
        x1={x(source.x)}
        y1={y(source.y)}
        x2={x(listener.x)}
        y2={y(listener.y)}
        stroke={tokens.sand}
        strokeWidth={2.4}
      />
      <Circle cx={x(source.x)} cy={y(source.y)} r={8} fill={tokens.sand} stroke={tokens.ink} strokeWidth={1} />
      <Circle cx={x(listener.x)} cy={y(listener.y)} r={8} fill={tokens.card} stroke={tokens.ink} strokeWidth={2} />
      {picture.handles.slice(0, 2).map((handle) => (
        <HandleDot key={handle.label} x={x(handle.x)} y={y(handle.y)} radius={7} strokeWidth={2.4} />
      ))}
      <ChartText
        x={width - 12}
        y={22}
        anchor="end"
        strong
      >{`${picture.width.toFixed(1)} × ${picture.depth.toFixed(1)} × ${picture.height.toFixed(1)} m`}</ChartText>
      {(
        [
          ['125 Hz', 0],
          ['1 kHz', 3],
          ['4 kHz', 5],
        ] as const
      ).map(([name, octave], i) => (
        <ChartText key={name} x={width - 12} y={44 + 18 * i} anchor="end">{`${name}  ${seconds(octave)}`}</ChartText>
      ))}
      <ChartText
        x={width - 12}
        y={106}
        anchor="end"
      >{`first after ${Math.min(...picture.firsts.map(({ ms }) => ms)).toFixed(1)} ms`}</ChartText>
    </ChartFrame>
  );
}

function describe({ width, depth, height, firsts, decays }: RoomPicture): string {
  return `Room of ${width.toFixed(1)} by ${depth.toFixed(1)} by ${height.toFixed(1)} metres. Decay ${decays[3]!.toFixed(2)} s at 1 kHz. First reflections after ${firsts.map(({ ms }) => ms.toFixed(1)).join(', ')} ms.`;
}
