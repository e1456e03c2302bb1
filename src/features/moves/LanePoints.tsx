import { useMemo } from 'react';
import { Circle, Path } from 'react-native-svg';
import { useTokens } from '../../ui/theme';
import { pointPlace, type LaneGeometry } from './laneGrip';
import { standsClose, type Shown } from './lanePath';

interface LanePointsProps {
  readonly laid: LaneGeometry;
  readonly shown: Shown;
  readonly chosen: number | null;
}

/**
 * The points of a lane in sight: those with room as rings; those that are close together as dots of one path, since
 * there may be thousands.
 */
export function LanePoints({ laid, shown: { first, end }, chosen }: LanePointsProps) {
  const tokens = useTokens();
  const { rings, dots } = useMemo(() => {
    const roomy: number[] = [];
    let close = '';
    for (let i = first; i < end; i += 1) {
      if (!standsClose(laid.points, i, laid.pxPerBeat)) roomy.push(i);
      else {
        const { x, y } = pointPlace(laid, i);
        close += `M${x.toFixed(1)} ${y.toFixed(1)}h0`;
      }
    }
    return { rings: roomy, dots: close };
  }, [laid, first, end]);
  const on = chosen !== null && chosen >= first && chosen < end ? pointPlace(laid, chosen) : null;
  return (
    <>
      {dots ? <Path d={dots} stroke={tokens.coral} strokeWidth={5} strokeLinecap="round" fill="none" /> : null}
      {rings.map((i) => {
        const at = pointPlace(laid, i);
        return <Circle key={i} cx={at.x} cy={at.y} r={5} fill={tokens.card} stroke={tokens.coral} strokeWidth={2} />;
      })}
      {on ? <Circle cx={on.x} cy={on.y} r={8} fill={tokens.coral} /> : null}
    </>
  );
}
