import Svg, { Ellipse, Line } from 'react-native-svg';
import type { EchoPicture } from '../../core/effects/echo/picture';
import { useTokens } from '../../ui/theme';
import { heightOf, Ripple, rippleWidth } from './ripples';

const WIDTH = 108;
const HEIGHT = 60;
const LEFT = 8;

/** The first repeats in small, for a card of the strand. */
export function EchoThumb({ picture }: { readonly picture: EchoPicture }) {
  const tokens = useTokens();
  const middle = HEIGHT / 2;
  const span = picture.firstSeconds * 5.4;
  const x = (seconds: number): number => LEFT + (seconds / span) * (WIDTH - LEFT - 4);
  const taps = picture.taps.filter((tap) => tap.seconds < span && heightOf(Math.max(tap.left, tap.right)) > 0.06);
  return (
    <Svg width={WIDTH} height={HEIGHT} style={{ pointerEvents: 'none' }}>
      <Line x1={0} x2={WIDTH} y1={middle} y2={middle} stroke={tokens.mute} strokeWidth={1} />
      <Ellipse cx={x(0)} cy={middle} rx={3} ry={middle * 0.85} fill={tokens.sand} />
      {taps.map((tap, i) => (
        <Ripple key={i} tap={tap} x={x(tap.seconds)} middle={middle} half={middle * 0.9} wide={Math.min(9, rippleWidth(taps, i, x))} tokens={tokens} />
      ))}
    </Svg>
  );
}
