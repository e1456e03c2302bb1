import { G, Line, Path } from 'react-native-svg';
import type { ResponsePicture } from '../../../core/effects/pictures';
import { formatHz } from '../../../core/params/format';
import { ChartFrame, ChartText, VerticalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type OnPull } from './Grip';
import { MovingCurves } from './MovingCurves';

const PAD = 16;
const TOP = 10;
const MARKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000];
const MARKS_NARROW = [100, 500, 2000, 10_000];
const LOW_HZ = 20;
const HIGH_HZ = 20_000;

interface ResponseChartProps {
  readonly picture: ResponsePicture;
  readonly width: number;
  readonly height: number;
  /** Place in the piece in seconds while it plays, else null. */
  readonly playing: () => number | null;
  readonly onPull: OnPull;
}

/** What passes: level over frequency as the height of water over a sand bank at 0 dB. */
export function ResponseChart({ picture, width, height, playing, onPull }: ResponseChartProps) {
  const tokens = useTokens();
  const room = width - 2 * PAD;
  const deep = height - TOP - RULER_HEIGHT;
  const { top, bottom } = span(picture);
  const x = (hz: number): number => PAD + (Math.log(hz / LOW_HZ) / Math.log(HIGH_HZ / LOW_HZ)) * room;
  const y = (db: number): number => TOP + ((top - Math.min(top, Math.max(bottom, db))) / (top - bottom)) * deep;
  const line = (levels: readonly number[]): string =>
    linePath(levels.map((db, i) => ({ x: x(picture.hz[i]!), y: y(db) })));
  const floor = `L${x(HIGH_HZ)} ${y(bottom)}L${x(LOW_HZ)} ${y(bottom)}Z`;
  const { sweep } = picture;
  const levels = [12, 0, -12, -24, -36].filter((db) => db <= top && db >= bottom);
  return (
    <ChartFrame
      label={describe(picture)}
      width={width}
      height={height}
      behind={
        sweep ? (
          <MovingCurves
            picture={picture}
            sweep={sweep}
            width={width}
            height={height}
            line={line}
            floor={floor}
            octave={room / Math.log2(HIGH_HZ / LOW_HZ)}
            playing={playing}
          />
        ) : null
      }
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => LOW_HZ * Math.pow(HIGH_HZ / LOW_HZ, (px - PAD) / room)}
          unitY={(py) => top - ((py - TOP) / deep) * (top - bottom)}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid
        marks={(width < 500 ? MARKS_NARROW : MARKS).map((hz) => ({ x: x(hz), text: formatHz(hz) }))}
        top={TOP}
        height={height}
      />
      {sweep ? null : <Path d={`${line(picture.left)}${floor}`} fill={tokens.seaSoft} fillOpacity={0.75} />}
      {levels.map((db) => (
        <G key={db}>
          <Line
            x1={PAD}
            x2={width - PAD}
            y1={y(db)}
            y2={y(db)}
            stroke={db === 0 ? tokens.sand : tokens.line}
            strokeWidth={db === 0 ? 2 : 1}
          />
          <ChartText x={width - PAD} y={y(db) - 4} anchor="end">
            {`${db > 0 ? '+' : ''}${db}`.replace('-', '\u2212')}
          </ChartText>
        </G>
      ))}
      {sweep ? null : <StillCurves picture={picture} line={line} />}
      {picture.handles.map((handle) => (
        <HandleDot key={handle.label} x={x(handle.x)} y={y(handle.y)} />
      ))}
      {picture.handles.length > 1
        ? picture.handles.map((handle) => (
            <ChartText
              key={handle.label}
              x={x(handle.x)}
              y={handle.pullY ? y(handle.y) - 13 : y(handle.y) + 22}
              anchor="middle"
              tone="ink"
            >
              {handle.label}
            </ChartText>
          ))
        : null}
      {(picture.right ?? sweep?.right) ? (
        <ChartText x={PAD + 4} y={TOP + 12}>
          left, dashed right
        </ChartText>
      ) : null}
    </ChartFrame>
  );
}

function StillCurves({
  picture,
  line,
}: {
  readonly picture: ResponsePicture;
  readonly line: (levels: readonly number[]) => string;
}) {
  const tokens = useTokens();
  return (
    <G>
      <Path d={line(picture.left)} stroke={tokens.sea} strokeWidth={2.2} fill="none" />
      {picture.right ? (
        <Path d={line(picture.right)} stroke={tokens.sea} strokeWidth={1.6} strokeDasharray="6 4" fill="none" />
      ) : null}
    </G>
  );
}

/** The levels between which all curves are, in dB; what moves needs no other scale on its way. */
function span({ left, right, sweep }: ResponsePicture): { readonly top: number; readonly bottom: number } {
  const all = [left, right ?? [], ...(sweep?.left ?? []), ...(sweep?.right ?? [])].flat();
  const [most, least] = all.reduce(([high, low], db) => [Math.max(high, db), Math.min(low, db)], [-Infinity, Infinity]);
  return {
    top: Math.max(15, Math.ceil((most + 3) / 6) * 6),
    bottom: Math.min(-18, Math.max(-48, Math.floor(least / 6) * 6)),
  };
}

function describe({ hz, left, right }: ResponsePicture): string {
  const at = (wanted: number, curve: readonly number[]): string => {
    const index = hz.findIndex((value) => value >= wanted);
    return `${formatHz(wanted)} ${Math.round(curve[index] ?? 0)} dB`;
  };
  const say = (curve: readonly number[]): string =>
    [60, 250, 1000, 4000, 12_000].map((wanted) => at(wanted, curve)).join(', ');
  return right ? `Response left: ${say(left)}. Right: ${say(right)}.` : `Response: ${say(left)}.`;
}
