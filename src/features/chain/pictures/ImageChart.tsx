import { Circle, G, Line, Path } from 'react-native-svg';
import type { ImagePicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';

interface ImageChartProps {
  readonly picture: ImagePicture;
  readonly width: number;
  readonly height: number;
}

const NAMES = ['left', 'middle', 'right'] as const;
const FULL_DB = 6;
const FLOOR_DB = -30;

interface Heard {
  readonly angle: number;
  readonly db: number;
}

/** From a pair of levels: the side it is heard at, -1 to 1, and how loud. */
function heard([l, r]: readonly [number, number]): Heard {
  const power = l * l + r * r;
  return { angle: power > 0 ? (r * r - l * l) / power : 0, db: 10 * Math.log10(Math.max(power, 1e-6)) };
}

/**
 * A fan from the listener: where a sound at the left, in the middle and at the right ends up, and how loud; sand is
 * where it came from.
 */
export function ImageChart({ picture, width, height }: ImageChartProps) {
  const tokens = useTokens();
  const base = height - 26;
  const reach = Math.min(base - 22, width / 2 - 56);
  const at = (angle: number, share: number): { x: number; y: number } => ({
    x: width / 2 + Math.sin((angle * Math.PI) / 3) * reach * share,
    y: base - Math.cos((angle * Math.PI) / 3) * reach * share,
  });
  const share = (db: number): number => Math.max(0.06, Math.min(1, (db - FLOOR_DB) / (FULL_DB - FLOOR_DB)));
  const arc = (part: number): string => linePath(Array.from({ length: 21 }, (_, i) => at(-1 + i / 10, part)));
  const rows = NAMES.map((name, i) => ({ name, from: at(i - 1, share(0)), ...heard(picture[name]) }));
  return (
    <ChartFrame
      label={`What both sides hear: ${rows.map(({ name, angle, db }) => `${name} at ${Math.round(angle * 100)} %, ${Math.round(db)} dB`).join('; ')}.`}
      width={width}
      height={height}
    >
      {[0, -12, -24].map((db) => (
        <Path key={db} d={arc(share(db))} stroke={tokens.line} strokeWidth={1} fill="none" />
      ))}
      {rows.map(({ name, from, angle, db }) => {
        const to = at(angle, share(db));
        return (
          <G key={name}>
            <Line
              x1={width / 2}
              y1={base}
              x2={from.x}
              y2={from.y}
              stroke={tokens.sand}
              strokeWidth={2}
              strokeDasharray="3 5"
            />
            <Line x1={width / 2} y1={base} x2={to.x} y2={to.y} stroke={tokens.sea} strokeWidth={3} />
            <Circle cx={to.x} cy={to.y} r={9} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={2} />
            <ChartText
              x={from.x + (name === 'left' ? -26 : name === 'right' ? 26 : 0)}
              y={name === 'middle' ? from.y - 14 : from.y + 5}
              anchor="middle"
            >
              {name}
            </ChartText>
          </G>
        );
      })}
      <Circle cx={width / 2} cy={base} r={6} fill={tokens.ink} />
      <ChartText x={width / 2} y={height - 5} anchor="middle">
        length is level, rings 12 dB apart
      </ChartText>
    </ChartFrame>
  );
}
