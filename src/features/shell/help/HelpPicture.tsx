import Svg, { Circle, Line, Path, Rect } from 'react-native-svg';
import type { ViewName } from '../../../data/address';
import { useTokens } from '../../../ui/theme';
import type { Tokens } from '../../../ui/tokens';

const WIDTH = 320;
const HEIGHT = 104;

/** A view in a few lines, in the colours that it has: sand dry, sea wet, coral moves, plum prints. */
export function HelpPicture({ view }: { readonly view: ViewName }) {
  const tokens = useTokens();
  return (
    <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      {PICTURES[view](tokens)}
    </Svg>
  );
}

/** A wave under a curve, as a clip is drawn. */
function wave(x: number, y: number, width: number, height: number): string {
  const steps = Math.round(width / 4);
  const points = Array.from({ length: steps }, (_, i) => {
    const high = height * (0.25 + 0.75 * Math.abs(Math.sin(i * 1.7)) * Math.exp(-((i % 9) / 6)));
    return `M${x + i * 4} ${y - high / 2}V${y + high / 2}`;
  });
  return points.join('');
}

const PICTURES: Readonly<Record<ViewName, (tokens: Tokens) => React.ReactNode>> = {
  piece: (tokens) => (
    <>
      {[0, 1, 2].map((row) => (
        <Line key={row} x1={8} x2={312} y1={18 + row * 30} y2={18 + row * 30} stroke={tokens.line} />
      ))}
      <Path d={wave(20, 33, 110, 20)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={wave(170, 33, 80, 20)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={wave(90, 63, 150, 20)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={wave(200, 93, 90, 18)} stroke={tokens.plum} strokeWidth={2} />
      <Line x1={150} x2={150} y1={6} y2={102} stroke={tokens.sea} strokeWidth={2} />
    </>
  ),
  chain: (tokens) => (
    <>
      <Path d="M160 2V102" stroke={tokens.sand} strokeWidth={4} />
      <Path d="M166 34C172 60 172 80 168 102" stroke={tokens.sea} strokeWidth={6} fill="none" />
      {[24, 68].map((y) => (
        <Rect key={y} x={70} y={y} width={184} height={26} rx={12} fill={tokens.card} stroke={tokens.line} />
      ))}
      {[0, 1, 2, 3].map((i) => (
        <Line
          key={i}
          x1={96 + i * 26}
          x2={96 + i * 26}
          y1={46}
          y2={46 - 16 * 0.6 ** i}
          stroke={tokens.sea}
          strokeWidth={3}
        />
      ))}
      <Path d="M92 88C130 74 190 90 236 90" stroke={tokens.sea} strokeWidth={3} fill="none" />
    </>
  ),
  moves: (tokens) => (
    <>
      <Path d={wave(12, 24, 296, 22)} stroke={tokens.sand} strokeWidth={2} />
      <Line x1={8} x2={312} y1={94} y2={94} stroke={tokens.line} />
      <Path d="M12 90L90 90C130 90 150 50 200 48L250 48V84H308" stroke={tokens.coral} strokeWidth={3} fill="none" />
      {[
        [90, 90],
        [200, 48],
        [250, 84],
      ].map(([x, y]) => (
        <Circle key={x} cx={x} cy={y} r={5} fill={tokens.coral} />
      ))}
    </>
  ),
  play: (tokens) => (
    <>
      <Rect x={84} y={8} width={152} height={88} rx={18} fill={tokens.seaSoft} stroke={tokens.sea} />
      <Path d="M100 84C140 80 150 30 216 24" stroke={tokens.coral} strokeWidth={3} strokeDasharray="2 7" fill="none" />
      <Circle cx={216} cy={24} r={9} fill={tokens.sea} />
      {[20, 64].map((y) =>
        [18, 252].map((x) => (
          <Rect
            key={`${x} ${y}`}
            x={x}
            y={y - 6}
            width={50}
            height={38}
            rx={16}
            fill={tokens.card}
            stroke={tokens.ink}
          />
        )),
      )}
      <Circle cx={43} cy={77} r={26} fill="none" stroke={tokens.sea} />
    </>
  ),
  shelf: (tokens) => (
    <>
      {[34, 74, 102].map((y) => (
        <Line key={y} x1={8} x2={312} y1={y} y2={y} stroke={tokens.line} strokeWidth={2} />
      ))}
      <Path d={wave(20, 20, 80, 18)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={wave(124, 20, 60, 18)} stroke={tokens.sand} strokeWidth={2} />
      <Path d={wave(20, 58, 120, 20)} stroke={tokens.plum} strokeWidth={2} />
      <Path d={wave(170, 58, 70, 20)} stroke={tokens.plum} strokeWidth={2} />
      {[0, 1, 2].map((i) => (
        <Rect key={i} x={20 + i * 62} y={80} width={50} height={20} rx={6} fill={tokens.card} stroke={tokens.sea} />
      ))}
    </>
  ),
};
