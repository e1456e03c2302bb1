import { G, Line, Path } from 'react-native-svg';
import type { CurvePicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText, VerticalGrid, HorizontalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type HandledChartProps } from './Grip';

const PAD = 38;
const TOP = 14;
const MARKS = [-80, -60, -50, -40, -30, -20, -10, 0];

/** Level out over level in: the sand line is unity gain, water is the output; the threshold is dashed. */
export function CurveChart({ picture, width, height, onPull }: HandledChartProps<CurvePicture>) {
  const tokens = useTokens();
  const [low, high] = [picture.inDb[0]!, picture.inDb[picture.inDb.length - 1]!];
  const room = width - PAD - 14;
  const deep = height - TOP - RULER_HEIGHT;
  const across = high - low > 60 ? 20 : 10;
  const marks = MARKS.filter((db) => db >= low && db % across === 0);
  const x = (db: number): number => PAD + ((db - low) / (high - low)) * room;
  const y = (db: number): number => TOP + ((high - Math.max(low, Math.min(high, db))) / (high - low)) * deep;
  const line = linePath(picture.inDb.map((db, i) => ({ x: x(db), y: y(picture.outDb[i]!) })));
  const loudest = picture.outDb[picture.outDb.length - 1]!;
  const minus = (db: number): string => `${Math.round(db * 10) / 10}`.replace('-', '\u2212');
  return (
    <ChartFrame
      label={`Level out over level in: ${marks.map((db) => `${db} dB in, ${Math.round(picture.outDb[picture.inDb.indexOf(db)] ?? db)} dB out`).join('; ')}.`}
      width={width}
      height={height}
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => low + ((px - PAD) / room) * (high - low)}
          unitY={(py) => high - ((py - TOP) / deep) * (high - low)}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid
        marks={marks.map((db) => ({ x: x(db), text: db === 0 ? '0 dB in' : minus(db) }))}
        top={TOP}
        height={height}
      />
      <HorizontalGrid marks={marks.map((db) => ({ y: y(db), text: minus(db) }))} left={PAD} right={width - 14} />
      <Line x1={x(low)} x2={x(high)} y1={y(low)} y2={y(high)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={`${line}L${x(high)} ${y(low)}L${x(low)} ${y(low)}Z`} fill={tokens.seaSoft} fillOpacity={0.7} />
      <Path d={line} stroke={tokens.sea} strokeWidth={2.6} fill="none" />
      <Mark
        picture={picture}
        x={x}
        y={y}
        width={width}
        height={height}
        text={`${picture.mark.name} ${minus(picture.mark.db)} dB · loudest out ${minus(loudest)} dB`}
      />
      {picture.handles.map((handle) => (
        <HandleDot key={handle.label} x={x(handle.x)} y={y(handle.y)} />
      ))}
    </ChartFrame>
  );
}

interface MarkProps {
  readonly picture: CurvePicture;
  readonly x: (db: number) => number;
  readonly y: (db: number) => number;
  readonly width: number;
  readonly height: number;
  readonly text: string;
}

/** A ceiling is a horizontal line, a level of the output; a threshold a vertical one, a level of the input. */
function Mark({ picture, x, y, width, height, text }: MarkProps) {
  const tokens = useTokens();
  const { name, db } = picture.mark;
  const lies = name === 'ceiling';
  const place = lies
    ? { x1: PAD, x2: width - 14, y1: y(db), y2: y(db) }
    : { x1: x(db), x2: x(db), y1: TOP, y2: height - RULER_HEIGHT };
  return (
    <G>
      <Line {...place} stroke={tokens.ink} strokeWidth={1.4} strokeDasharray="7 5" />
      <ChartText x={PAD + 8} y={lies ? Math.max(12, y(db) - 6) : TOP + 12} strong>
        {text}
      </ChartText>
    </G>
  );
}
