import { View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { useTokens } from '../../../ui/theme';

/** The last four seconds: what entered above the waterline, what left below it. */
export function WavePair({
  before,
  after,
  width,
  height,
}: {
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly width: number;
  readonly height: number;
}) {
  const middle = height / 2;
  const tokens = useTokens();
  const shape = (levels: readonly number[], way: 1 | -1): string => {
    const at = (i: number): string =>
      `${((i / (levels.length - 1)) * width).toFixed(1)} ${(middle - way * Math.min(1, Math.sqrt(levels[i]!)) * (middle - 2)).toFixed(1)}`;
    return `M0 ${middle}${levels.map((_, i) => `L${at(i)}`).join('')}L${width} ${middle}Z`;
  };
  return (
    <View
      role="img"
      aria-label="The last four seconds: before the effects above the line, after them below it"
      style={{ width, height: height }}
    >
      <Svg width={width} height={height}>
        <Path d={shape(before, 1)} fill={tokens.sand} />
        <Path d={shape(after, -1)} fill={tokens.sea} />
        <Line x1={0} x2={width} y1={middle} y2={middle} stroke={tokens.mute} strokeWidth={1} />
      </Svg>
    </View>
  );
}
