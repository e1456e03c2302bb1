import { Circle, G, Line } from 'react-native-svg';
import type { PartialsPicture } from '../../../core/effects/pictures';
import { formatHz } from '../../../core/params/format';
import { ChartFrame, ChartText, VerticalGrid, HorizontalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';

const PAD = 34;
const TOP = 24;
const LOW_HZ = 40;
const HIGH_HZ = 20_000;
const FLOOR_DB = -72;
const MARKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000];
const MARKS_NARROW = [100, 500, 2000, 10_000];

interface PartialsChartProps {
  readonly picture: PartialsPicture;
  readonly width: number;
  readonly height: number;
}

/** Tones as posts in the water: broad and sand-coloured as they went in, thin with a head as they came out. */
export function PartialsChart({ picture, width, height }: PartialsChartProps) {
  const tokens = useTokens();
  const x = (hz: number): number =>
    PAD +
    (Math.log(Math.min(HIGH_HZ, Math.max(LOW_HZ, hz)) / LOW_HZ) / Math.log(HIGH_HZ / LOW_HZ)) * (width - PAD - 14);
  const y = (db: number): number =>
    TOP + (Math.min(0, Math.max(FLOOR_DB, db)) / FLOOR_DB) * (height - TOP - RULER_HEIGHT);
  const loudest = [...picture.after]
    .sort((a, b) => b.db - a.db)
    .slice(0, 3)
    .sort((a, b) => a.hz - b.hz);
  return (
    <ChartFrame
      label={`What becomes of ${picture.test}: ${picture.after.length} tones; the strongest at ${loudest.map(({ hz, db }) => `${formatHz(hz)}, ${Math.round(db)} dB`).join('; ') || 'none'}.`}
      width={width}
      height={height}
    >
      <VerticalGrid
        marks={(width < 500 ? MARKS_NARROW : MARKS).map((hz) => ({ x: x(hz), text: formatHz(hz) }))}
        top={TOP}
        height={height}
      />
      <HorizontalGrid
        marks={[0, -24, -48].map((db) => ({ y: y(db), text: `${db}`.replace('-', '\u2212') }))}
        left={PAD}
        right={width - 14}
      />
      {picture.before.map(({ hz, db }) => (
        <Line
          key={`before ${hz}`}
          x1={x(hz)}
          x2={x(hz)}
          y1={y(FLOOR_DB)}
          y2={y(db)}
          stroke={tokens.sand}
          strokeOpacity={0.55}
          strokeWidth={7}
        />
      ))}
      {picture.after.map(({ hz, db }) => (
        <G key={`after ${hz}`}>
          <Line x1={x(hz)} x2={x(hz)} y1={y(FLOOR_DB)} y2={y(db)} stroke={tokens.sea} strokeWidth={2} />
          <Circle cx={x(hz)} cy={y(db)} r={3.4} fill={tokens.sea} />
        </G>
      ))}
      <ChartText x={width - 16} y={14} anchor="end">{`${picture.test}: sand in, water out, dB`}</ChartText>
    </ChartFrame>
  );
}
