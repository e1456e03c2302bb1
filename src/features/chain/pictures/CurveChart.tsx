import { View } from 'react-native';
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { CurvePicture } from '../../../core/effects/pictures';
import { useTokens } from '../../../ui/theme';
import { FONT, FONT_STRONG } from '../../../ui/tokens';

const PAD = 38;
const RULER = 22;
const TOP = 14;
const MARKS = [-30, -20, -10, 0];

interface CurveChartProps {
  readonly picture: CurvePicture;
  readonly width: number;
  readonly height: number;
}

/** Level out over level in: the sand line is the sound untouched, water is what comes out, the ceiling lies over it. */
export function CurveChart({ picture, width, height }: CurveChartProps) {
  const tokens = useTokens();
  const [low, high] = [picture.inDb[0]!, picture.inDb[picture.inDb.length - 1]!];
  const x = (db: number): number => PAD + ((db - low) / (high - low)) * (width - PAD - 14);
  const y = (db: number): number => TOP + ((high - Math.max(low, Math.min(high, db))) / (high - low)) * (height - TOP - RULER);
  const line = picture.inDb.map((db, i) => `${i === 0 ? 'M' : 'L'}${x(db).toFixed(1)} ${y(picture.outDb[i]!).toFixed(1)}`).join('');
  const loudest = picture.outDb[picture.outDb.length - 1]!;
  const minus = (db: number): string => `${Math.round(db * 10) / 10}`.replace('-', '\u2212');
  return (
    <View role="img" aria-label={`Level out over level in: ${MARKS.map((db) => `${db} dB in, ${Math.round(picture.outDb[picture.inDb.indexOf(db)] ?? db)} dB out`).join('; ')}.`} style={{ width, height }}>
      <Svg width={width} height={height}>
        {MARKS.map((db) => (
          <G key={db}>
            <Line x1={x(db)} x2={x(db)} y1={TOP} y2={height - RULER} stroke={tokens.line} strokeWidth={1} />
            <Line x1={PAD} x2={width - 14} y1={y(db)} y2={y(db)} stroke={tokens.line} strokeWidth={1} />
            <SvgText x={x(db)} y={height - 6} textAnchor="middle" fontFamily={FONT} fontSize={12} fill={tokens.mute}>{db === 0 ? '0 dB in' : minus(db)}</SvgText>
            <SvgText x={PAD - 6} y={y(db) + 4} textAnchor="end" fontFamily={FONT} fontSize={12} fill={tokens.mute}>{minus(db)}</SvgText>
          </G>
        ))}
        <Line x1={x(low)} x2={x(high)} y1={y(low)} y2={y(high)} stroke={tokens.sand} strokeWidth={2} />
        <Path d={`${line}L${x(high)} ${y(low)}L${x(low)} ${y(low)}Z`} fill={tokens.seaSoft} fillOpacity={0.7} />
        <Path d={line} stroke={tokens.sea} strokeWidth={2.6} fill="none" />
        <Line x1={PAD} x2={width - 14} y1={y(picture.ceilingDb)} y2={y(picture.ceilingDb)} stroke={tokens.ink} strokeWidth={1.4} strokeDasharray="7 5" />
        <SvgText x={PAD + 8} y={Math.max(12, y(picture.ceilingDb) - 6)} fontFamily={FONT_STRONG} fontSize={13} fill={tokens.ink}>{`ceiling ${minus(picture.ceilingDb)} dB · loudest out ${minus(loudest)} dB`}</SvgText>
      </Svg>
    </View>
  );
}
