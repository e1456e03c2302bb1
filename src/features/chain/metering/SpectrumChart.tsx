import { Line, Path } from 'react-native-svg';
import { SPECTRUM_HZ } from '../../../core/analysis/channelAnalyser';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';

const FOOT = 18;
const TOP_DB = 0;
const FLOOR_DB = -84;
const MARKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000] as const;

interface SpectrumChartProps {
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly width: number;
  readonly height: number;
}

/** What leaves the effects as a filled sea, what entered them as a line of sand. */
export function SpectrumChart({ before, after, width, height }: SpectrumChartProps) {
  const tokens = useTokens();
  const base = height - FOOT;
  const first = SPECTRUM_HZ[0]!;
  const ratio = Math.log(SPECTRUM_HZ[SPECTRUM_HZ.length - 1]! / first);
  const x = (hz: number): number => (Math.log(hz / first) / ratio) * width;
  const y = (db: number): number => base * Math.min(1, Math.max(0, (TOP_DB - db) / (TOP_DB - FLOOR_DB)));
  const line = (levels: readonly number[]): string =>
    linePath(levels.map((db, i) => ({ x: x(SPECTRUM_HZ[i]!), y: y(db) })));
  return (
    <ChartFrame label="Spectrum before the effects, in sand, and after them, in sea" width={width} height={height}>
      {[-24, -48, -72].map((db) => (
        <Line
          key={db}
          x1={0}
          x2={width}
          y1={y(db)}
          y2={y(db)}
          stroke={tokens.line}
          strokeWidth={1}
          strokeDasharray="2 5"
        />
      ))}
      <Path d={`${line(after)}L${width} ${base}L0 ${base}Z`} fill={tokens.seaSoft} stroke="none" />
      <Path d={line(after)} stroke={tokens.sea} strokeWidth={1.8} fill="none" />
      <Path d={line(before)} stroke={tokens.sand} strokeWidth={1.8} fill="none" />
      <Line x1={0} x2={width} y1={base} y2={base} stroke={tokens.mute} strokeWidth={1} />
      {MARKS.map((hz) => (
        <ChartText key={hz} x={x(hz)} y={height - 4} anchor="middle">
          {hz < 1000 ? String(hz) : `${hz / 1000}k`}
        </ChartText>
      ))}
    </ChartFrame>
  );
}
