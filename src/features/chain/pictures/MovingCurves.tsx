import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { ResponsePicture, Sweep } from '../../../core/effects/pictures';
import { elementOf, useFrame } from '../../../ui/frame';
import { wantsLessMotion } from '../../../ui/motion';
import { useTokens } from '../../../ui/theme';

interface MovingCurvesProps {
  readonly picture: ResponsePicture;
  readonly sweep: Sweep;
  readonly width: number;
  readonly height: number;
  /** A row of levels as a path. */
  readonly line: (levels: readonly number[]) => string;
  /** What closes such a path along the bottom. */
  readonly floor: string;
  /** Pixels of an octave. */
  readonly octave: number;
  /** Place in the piece in seconds while it plays, else null. */
  readonly playing: () => number | null;
}

/**
 * Curves as the effect has them at this moment; in the middle of their sweep while nothing plays or moving is not
 * wanted.
 */
export function MovingCurves({ picture, sweep, width, height, line, floor, octave, playing }: MovingCurvesProps) {
  const tokens = useTokens();
  const view = useRef<View>(null);
  const paths = useMemo(() => ({ left: sweep.left.map(line), right: sweep.right?.map(line) ?? null }), [sweep, line]);
  const still = wantsLessMotion();
  useFrame(() => {
    const [water, left, right] = elementOf(view.current)?.querySelectorAll('path') ?? [];
    const seconds = still ? null : playing();
    const at = (behind: number): number =>
      seconds === null ? (sweep.rest ?? 0) : sweep.depth * Math.sin(2 * Math.PI * (seconds * sweep.hz - behind));
    stand(water, paths.left, sweep, at(0), octave, floor);
    stand(left, paths.left, sweep, at(0), octave);
    if (paths.right) stand(right, paths.right, sweep, at(sweep.behindTurns), octave);
  });
  const first = line(picture.left);
  return (
    <View ref={view} style={StyleSheet.absoluteFill}>
      <Svg width={width} height={height}>
        <Path d={`${first}${floor}`} fill={tokens.seaSoft} fillOpacity={0.75} />
        <Path d={first} stroke={tokens.sea} strokeWidth={2.2} fill="none" />
        {paths.right ? (
          <Path
            d={line(picture.right ?? picture.left)}
            stroke={tokens.sea}
            strokeWidth={1.6}
            strokeDasharray="6 4"
            fill="none"
          />
        ) : null}
      </Svg>
    </View>
  );
}

/** Draws the nearest of the curves that were looked at, pushed along by what is between. */
function stand(
  path: Element | undefined,
  paths: readonly string[],
  { octaves, slides }: Sweep,
  at: number,
  octave: number,
  floor = '',
): void {
  if (!path) return;
  const step = octaves[1]! - octaves[0]!;
  const nearest = Math.min(octaves.length - 1, Math.max(0, Math.round((at - octaves[0]!) / step)));
  path.setAttribute('d', `${paths[nearest]!}${floor}`);
  path.setAttribute(
    'transform',
    slides === false ? '' : `translate(${((at - octaves[nearest]!) * octave).toFixed(2)} 0)`,
  );
}
