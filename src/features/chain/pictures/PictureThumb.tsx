import Svg, { Circle, Ellipse, G, Line, Path, Rect } from 'react-native-svg';
import type {
  CurvePicture,
  DecayPicture,
  EffectPicture,
  ImagePicture,
  ImpulsePicture,
  PartialsPicture,
  PlacePicture,
  RepeatsPicture,
  RoomPicture,
  SwayPicture,
} from '../../../core/effects/pictures';
import { useTokens } from '../../../ui/theme';
import type { Tokens } from '../../../ui/tokens';
import { heightOf, Ripple, rippleWidth } from './ripples';

const WIDTH = 108;
const HEIGHT = 60;
const LEFT = 8;
const MIDDLE = HEIGHT / 2;

/** A picture in small, for a card of the strand. */
export function PictureThumb({ picture }: { readonly picture: EffectPicture }) {
  const tokens = useTokens();
  return (
    <Svg width={WIDTH} height={HEIGHT} style={{ pointerEvents: 'none' }}>
      <Small picture={picture} tokens={tokens} />
    </Svg>
  );
}

function Small({ picture, tokens }: { readonly picture: EffectPicture; readonly tokens: Tokens }) {
  switch (picture.kind) {
    case 'repeats':
      return <SmallRepeats picture={picture} tokens={tokens} />;
    case 'decay':
      return <SmallDecay picture={picture} tokens={tokens} />;
    case 'response':
      return <SmallCurve levels={picture.left.map((db) => (db + 36) / 54)} base={36 / 54} tokens={tokens} />;
    case 'motion':
      return <SmallCurve levels={picture.left.map((level) => level * 0.9)} base={0} tokens={tokens} />;
    case 'curve':
      return (
        <SmallCurve
          levels={picture.outDb.map((db) => shareOf(picture, db))}
          base={shareOf(picture, picture.mark.name === 'ceiling' ? 0 : picture.mark.db)}
          tokens={tokens}
        />
      );
    case 'room':
      return <SmallRoom picture={picture} tokens={tokens} />;
    case 'place':
      return <SmallPlace picture={picture} tokens={tokens} />;
    case 'impulse':
      return <SmallImpulse picture={picture} tokens={tokens} />;
    case 'braid':
      return null;
    case 'sway':
      return <SmallSway picture={picture} tokens={tokens} />;
    case 'partials':
      return <SmallPartials picture={picture} tokens={tokens} />;
    case 'transfer':
      return (
        <SmallWave
          before={picture.input.map((x) => x / picture.input[picture.input.length - 1]!)}
          after={picture.output.map((y) => y / 1.2)}
          tokens={tokens}
        />
      );
    case 'wave':
      return <SmallWave before={picture.before} after={picture.after} tokens={tokens} />;
    case 'image':
      return <SmallImage picture={picture} tokens={tokens} />;
  }
}

/** Height of a level between the least and the most that was sent in. */
const shareOf = ({ inDb }: CurvePicture, db: number): number => (db - inDb[0]!) / (inDb[inDb.length - 1]! - inDb[0]!);

function SmallRepeats({ picture, tokens }: { readonly picture: RepeatsPicture; readonly tokens: Tokens }) {
  const span = Math.min(picture.spanSeconds, picture.firstSeconds * 5.4);
  const x = (seconds: number): number => LEFT + (seconds / span) * (WIDTH - LEFT - 4);
  const taps = picture.taps.filter((tap) => tap.seconds < span && heightOf(Math.max(tap.left, tap.right)) > 0.06);
  return (
    <G>
      <Line x1={0} x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke={tokens.mute} strokeWidth={1} />
      <Ellipse cx={x(0)} cy={MIDDLE} rx={3} ry={MIDDLE * 0.85} fill={tokens.sand} />
      {taps.map((tap, i) => (
        <Ripple
          key={i}
          tap={tap}
          x={x(tap.seconds)}
          middle={MIDDLE}
          half={MIDDLE * 0.9}
          wide={Math.min(9, rippleWidth(taps, i, x))}
          tokens={tokens}
        />
      ))}
    </G>
  );
}

function SmallDecay({ picture, tokens }: { readonly picture: DecayPicture; readonly tokens: Tokens }) {
  const shore = picture.middle
    .map(
      (db, i) =>
        `L${(LEFT + (i / (picture.middle.length - 1)) * (WIDTH - LEFT)).toFixed(1)} ${(4 + (Math.min(66, -db) / 66) * (HEIGHT - 8)).toFixed(1)}`,
    )
    .join('');
  return (
    <G>
      <Path
        d={`M${LEFT} ${HEIGHT - 4}${shore}L${WIDTH} ${HEIGHT - 4}Z`}
        fill={tokens.seaSoft}
        stroke={tokens.sea}
        strokeWidth={1.6}
      />
      <Ellipse cx={LEFT} cy={MIDDLE} rx={3} ry={MIDDLE * 0.85} fill={tokens.sand} />
    </G>
  );
}

function SmallCurve({
  levels,
  base,
  tokens,
}: {
  readonly levels: readonly number[];
  readonly base: number;
  readonly tokens: Tokens;
}) {
  const y = (level: number): number => HEIGHT - 3 - Math.max(0, Math.min(1, level)) * (HEIGHT - 6);
  const line = levels
    .map((level, i) => `${i === 0 ? 'M' : 'L'}${((i / (levels.length - 1)) * WIDTH).toFixed(1)} ${y(level).toFixed(1)}`)
    .join('');
  return (
    <G>
      <Path d={`${line}L${WIDTH} ${HEIGHT}L0 ${HEIGHT}Z`} fill={tokens.seaSoft} />
      <Line x1={0} x2={WIDTH} y1={y(base)} y2={y(base)} stroke={tokens.sand} strokeWidth={1.4} />
      <Path d={line} stroke={tokens.sea} strokeWidth={1.8} fill="none" />
    </G>
  );
}

function SmallImpulse({ picture, tokens }: { readonly picture: ImpulsePicture; readonly tokens: Tokens }) {
  const at = (db: number, i: number, up: 1 | -1): string =>
    `${(LEFT + (i / (picture.left.length - 1)) * (WIDTH - LEFT)).toFixed(1)} ${(MIDDLE - up * Math.max(0, 1 + db / 72) * (MIDDLE - 3)).toFixed(1)}`;
  const path = `M${picture.usedLeft.map((db, i) => at(db, i, 1)).join('L')}L${picture.usedRight
    .map((db, i) => at(db, i, -1))
    .reverse()
    .join('L')}Z`;
  return (
    <G>
      <Path d={path} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.4} />
      <Line x1={0} x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke={tokens.mute} strokeWidth={1} />
      <Ellipse cx={LEFT} cy={MIDDLE} rx={3} ry={MIDDLE * 0.85} fill={tokens.sand} />
    </G>
  );
}

function SmallRoom({ picture, tokens }: { readonly picture: RoomPicture; readonly tokens: Tokens }) {
  const scale = Math.min((WIDTH - 16) / picture.width, (HEIGHT - 8) / picture.depth);
  const at = ({ x, y }: { readonly x: number; readonly y: number }): readonly [number, number] => [
    LEFT + x * scale,
    4 + y * scale,
  ];
  const line = (first: RoomPicture['firsts'][number]): string =>
    `M${at(picture.source).join(' ')}L${at(first).join(' ')}L${at(picture.listener).join(' ')}`;
  return (
    <G>
      <Rect
        x={LEFT}
        y={4}
        width={picture.width * scale}
        height={picture.depth * scale}
        fill="none"
        stroke={tokens.ink}
        strokeWidth={1.6}
      />
      {picture.firsts.map((first, i) => (
        <Path key={i} d={line(first)} stroke={tokens.sea} strokeWidth={1} fill="none" />
      ))}
      <Circle cx={at(picture.source)[0]} cy={at(picture.source)[1]} r={3} fill={tokens.sand} />
      <Circle cx={at(picture.listener)[0]} cy={at(picture.listener)[1]} r={3} fill={tokens.ink} />
    </G>
  );
}

function SmallPlace({ picture, tokens }: { readonly picture: PlacePicture; readonly tokens: Tokens }) {
  const scale = (MIDDLE - 7) / Math.max(0.5, picture.farthest);
  const at = ({ x, y }: { readonly x: number; readonly y: number }): readonly [number, number] => [
    WIDTH / 2 + x * scale,
    MIDDLE - y * scale,
  ];
  const [x, y] = at(picture.at);
  return (
    <G>
      <Circle cx={WIDTH / 2} cy={MIDDLE} r={MIDDLE - 6} fill="none" stroke={tokens.line} />
      <Path
        d={picture.path
          .map(at)
          .map(([px, py], i) => `${i === 0 ? 'M' : 'L'}${px.toFixed(1)} ${py.toFixed(1)}`)
          .join('')}
        stroke={tokens.sea}
        strokeDasharray="3 3"
        fill="none"
      />
      <Circle cx={WIDTH / 2} cy={MIDDLE} r={4} fill={tokens.sand} />
      <Circle cx={x} cy={y} r={6} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={2} />
    </G>
  );
}

function SmallImage({ picture, tokens }: { readonly picture: ImagePicture; readonly tokens: Tokens }) {
  const base = HEIGHT - 4;
  const dots = ([picture.left, picture.middle, picture.right] as const).map(([l, r]) => {
    const power = l * l + r * r;
    const angle = ((power > 0 ? (r * r - l * l) / power : 0) * Math.PI) / 3;
    const reach = Math.min(1, Math.sqrt(power)) * (HEIGHT - 16);
    return [WIDTH / 2 + Math.sin(angle) * reach, base - Math.cos(angle) * reach] as const;
  });
  return (
    <G>
      {dots.map(([x, y], i) => (
        <G key={i}>
          <Line x1={WIDTH / 2} y1={base} x2={x} y2={y} stroke={tokens.sea} strokeWidth={1.6} />
          <Circle cx={x} cy={y} r={4.5} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.6} />
        </G>
      ))}
      <Circle cx={WIDTH / 2} cy={base} r={3} fill={tokens.sand} />
    </G>
  );
}

function SmallSway({ picture, tokens }: { readonly picture: SwayPicture; readonly tokens: Tokens }) {
  const most = Math.max(5, ...picture.lines.flatMap(({ cents }) => cents.map(Math.abs)));
  return (
    <G>
      <Line x1={0} x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke={tokens.sand} strokeWidth={2} />
      {picture.lines.map(({ cents }, i) => (
        <Path
          key={i}
          d={smallLine(cents.map((cent) => cent / most))}
          stroke={tokens.sea}
          strokeWidth={1.8}
          strokeDasharray={i === 1 ? '5 4' : undefined}
          fill="none"
        />
      ))}
    </G>
  );
}

function SmallPartials({ picture, tokens }: { readonly picture: PartialsPicture; readonly tokens: Tokens }) {
  const x = (hz: number): number => LEFT + (Math.log(Math.max(30, hz) / 30) / Math.log(600)) * (WIDTH - LEFT - 4);
  const y = (db: number): number => 4 + (Math.min(72, Math.max(0, -db)) / 72) * (HEIGHT - 8);
  return (
    <G>
      {picture.before.map(({ hz, db }, i) => (
        <Line key={`b${i}`} x1={x(hz)} x2={x(hz)} y1={HEIGHT - 4} y2={y(db)} stroke={tokens.sandSoft} strokeWidth={4} />
      ))}
      {picture.after.map(({ hz, db }, i) => (
        <Line key={`a${i}`} x1={x(hz)} x2={x(hz)} y1={HEIGHT - 4} y2={y(db)} stroke={tokens.sea} strokeWidth={1.6} />
      ))}
    </G>
  );
}

function SmallWave({
  before,
  after,
  tokens,
}: {
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly tokens: Tokens;
}) {
  return (
    <G>
      <Path d={smallLine(before)} stroke={tokens.sand} strokeWidth={1.4} fill="none" />
      <Path d={smallLine(after)} stroke={tokens.sea} strokeWidth={2} fill="none" />
    </G>
  );
}

/** Heights between -1 and 1 as a path. */
const smallLine = (heights: readonly number[]): string =>
  heights
    .map(
      (height, i) =>
        `${i === 0 ? 'M' : 'L'}${((i / (heights.length - 1)) * WIDTH).toFixed(1)} ${(MIDDLE - Math.max(-1, Math.min(1, height)) * (MIDDLE - 4)).toFixed(1)}`,
    )
    .join('');
