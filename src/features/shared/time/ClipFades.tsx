import { useMemo } from 'react';
import { StyleSheet } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { fadeGain } from '../../../core/engine/fade';
import { FADE_SHAPES, type Clip } from '../../../core/piece/piece';
import { useTokens } from '../../../ui/theme';

const STEPS = 12;
/** A fade narrower than this is no more than the edge of the clip. */
const MIN_PX = 2;

interface ClipFadesProps {
  readonly clip: Clip;
  readonly width: number;
  readonly height: number;
}

/** The level of a clip drawn over its sound: what its fades leave out is shaded. */
export function ClipFades({ clip, width, height }: ClipFadesProps) {
  const tokens = useTokens();
  const path = useMemo(() => {
    const side = (seconds: number, shape: Clip['fadeInShape'], flip: boolean): string => {
      const wide = (seconds / clip.lengthSeconds) * width;
      if (wide < MIN_PX) return '';
      const x = (share: number): number => (flip ? width - share * wide : share * wide);
      const curve = Array.from(
        { length: STEPS + 1 },
        (_, i) =>
          `L${x(i / STEPS).toFixed(1)} ${(height * (1 - fadeGain(FADE_SHAPES.indexOf(shape ?? 'line'), i / STEPS))).toFixed(1)}`,
      ).join('');
      return `M${x(0).toFixed(1)} 0${curve}Z`;
    };
    return side(clip.fadeInSeconds, clip.fadeInShape, false) + side(clip.fadeOutSeconds, clip.fadeOutShape, true);
  }, [clip, width, height]);
  // A level that was changed: half height is as it was, twice as loud is at the top.
  const level = clip.gain === 1 ? null : height * (1 - Math.min(1, clip.gain / 2));
  if (path === '' && level === null) return null;
  return (
    <Svg width={width} height={height} style={styles.over}>
      {path === '' ? null : <Path d={path} fill={tokens.paper} opacity={0.72} stroke={tokens.ink} strokeWidth={1} />}
      {level === null ? null : (
        <Path d={`M0 ${level.toFixed(1)}H${width}`} stroke={tokens.ink} strokeWidth={1.5} strokeDasharray="4 3" />
      )}
    </Svg>
  );
}

const styles = StyleSheet.create({ over: { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } });
