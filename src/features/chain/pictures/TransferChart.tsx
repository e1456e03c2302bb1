import { Line, Path, Rect } from 'react-native-svg';
import type { TransferPicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type HandledChartProps } from './Grip';

const PAD = 14;
const TOP = 12;
const BOTTOM = 12;
/** Heights that come out are between these. */
const MOST = 1.2;

/** The transfer curve: input along, output up; the shaded range is that of a usual level. */
export function TransferChart({ picture, width, height, onPull }: HandledChartProps<TransferPicture>) {
  const tokens = useTokens();
  const reach = picture.input[picture.input.length - 1]!;
  const room = width - 2 * PAD;
  const deep = height - TOP - BOTTOM;
  const x = (value: number): number => PAD + ((Math.max(-reach, Math.min(reach, value)) + reach) / (2 * reach)) * room;
  const y = (value: number): number => TOP + ((MOST - Math.max(-MOST, Math.min(MOST, value))) / (2 * MOST)) * deep;
  const line = linePath(picture.input.map((at, i) => ({ x: x(at), y: y(picture.output[i]!) })));
  const straight = Math.min(reach, MOST);
  const outAt = (value: number): number =>
    picture.output[Math.round(((value + reach) / (2 * reach)) * (picture.input.length - 1))] ?? 0;
  return (
    <ChartFrame
      label={`The curve: ${[-1, -0.5, 0, 0.5, 1].map((at) => `${at} becomes ${outAt(at).toFixed(2)}`).join(', ')}.`}
      width={width}
      height={height}
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => px}
          unitY={(py) => MOST - ((py - TOP) / deep) * 2 * MOST}
          onPull={onPull}
        />
      }
    >
      <Rect
        x={x(picture.met.from)}
        y={TOP}
        width={Math.max(2, x(picture.met.to) - x(picture.met.from))}
        height={deep}
        fill={tokens.seaSoft}
        fillOpacity={0.55}
      />
      <Line x1={PAD} x2={width - PAD} y1={y(0)} y2={y(0)} stroke={tokens.line} strokeWidth={1} />
      <Line x1={x(0)} x2={x(0)} y1={TOP} y2={height - BOTTOM} stroke={tokens.line} strokeWidth={1} />
      <Line
        x1={x(-straight)}
        x2={x(straight)}
        y1={y(-straight)}
        y2={y(straight)}
        stroke={tokens.sand}
        strokeWidth={2}
      />
      <Path d={line} stroke={tokens.sea} strokeWidth={2.8} fill="none" />
      {picture.handles.map((handle) => (
        <HandleDot key={handle.label} x={x(handle.x)} y={y(handle.y)} />
      ))}
      <ChartText x={PAD + 4} y={TOP + 12}>
        out
      </ChartText>
      <ChartText x={width - PAD - 4} y={height - BOTTOM - 5} anchor="end">
        in, shaded at −12 dB
      </ChartText>
    </ChartFrame>
  );
}
