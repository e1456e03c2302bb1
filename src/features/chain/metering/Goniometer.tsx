import { View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { ChartText } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';
import { Text } from '../../../ui/Text';

/** Faint sounds are drawn up to be seen, never more than this. */
const MAX_GAIN = 12;

interface GoniometerProps {
  /** Left, right, left, right … */
  readonly pairs: readonly number[];
  readonly correlation: number;
  readonly size: number;
}

/** Left against right, turned by an eighth: mono is upright, the difference is across. */
export function Goniometer({ pairs, correlation, size }: GoniometerProps) {
  const half = size / 2;
  const tokens = useTokens();
  const loudest = pairs.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const gain = loudest > 0 ? Math.min(MAX_GAIN, 0.95 / loudest) : 1;
  const points: string[] = [];
  for (let i = 0; i < pairs.length; i += 2) {
    const x = half + (pairs[i + 1]! - pairs[i]!) * 0.5 * gain * (half - 12);
    const y = half - (pairs[i + 1]! + pairs[i]!) * 0.5 * gain * (half - 12);
    points.push(`${points.length === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`);
  }
  return (
    <View
      role="img"
      aria-label={`Stereo image, correlation ${correlation.toFixed(2)}`}
      style={{ width: size, alignItems: 'center' }}
    >
      <Svg width={size} height={size}>
        <Path
          d={`M${half} 6L${size - 6} ${half}L${half} ${size - 6}L6 ${half}Z`}
          stroke={tokens.line}
          strokeWidth={1}
          fill="none"
        />
        <Line x1={half} x2={half} y1={6} y2={size - 6} stroke={tokens.line} strokeWidth={1} />
        <Line x1={6} x2={size - 6} y1={half} y2={half} stroke={tokens.line} strokeWidth={1} />
        <Path d={points.join('')} stroke={tokens.sea} strokeWidth={1.1} strokeOpacity={0.8} fill="none" />
        <ChartText x={size * 0.17} y={size * 0.21}>
          L
        </ChartText>
        <ChartText x={size * 0.79} y={size * 0.21}>
          R
        </ChartText>
      </Svg>
      <Text variant="bodySmall">{`correlation ${correlation.toFixed(2).replace('-', '−')}`}</Text>
    </View>
  );
}
