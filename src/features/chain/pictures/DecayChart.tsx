import { Ellipse, Line, Path } from 'react-native-svg';
import type { DecayPicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText, VerticalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type HandledChartProps } from './Grip';
import { sayMark, saySeconds, timeMarks } from './timeAxis';

const PAD_LEFT = 34;
const PAD_RIGHT = 14;
const TOP = 24;
const FLOOR_DB = -66;

/**
 * Decay of a reverb: the mids as water, lows and highs as lines over and under it, early reflections as vertical bars.
 */
export function DecayChart({ picture, width, height, onPull }: HandledChartProps<DecayPicture>) {
  const tokens = useTokens();
  const room = width - PAD_LEFT - PAD_RIGHT;
  const deep = height - TOP - RULER_HEIGHT;
  const x = (at: number): number => PAD_LEFT + (at / picture.spanSeconds) * room;
  const y = (db: number): number => TOP + (Math.max(FLOOR_DB, Math.min(0, db)) / FLOOR_DB) * deep;
  const line = (levels: readonly number[]): string =>
    linePath(levels.map((db, i) => ({ x: x(i * picture.frameSeconds), y: y(db) })));
  const marks = timeMarks(picture.spanSeconds, width > 500 ? 9 : 6);
  const water = `${line(picture.middle)}L${x(picture.spanSeconds)} ${y(FLOOR_DB)}L${x(0)} ${y(FLOOR_DB)}Z`;
  return (
    <ChartFrame
      label={describe(picture)}
      width={width}
      height={height}
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => ((px - PAD_LEFT) / room) * picture.spanSeconds}
          unitY={(py) => ((py - TOP) / deep) * FLOOR_DB}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid marks={marks.map((at) => ({ x: x(at), text: sayMark(at) }))} top={TOP - 6} height={height} />
      <Path d={water} fill={tokens.seaSoft} fillOpacity={0.8} />
      <Path d={line(picture.low)} stroke={tokens.sea} strokeWidth={2.4} strokeOpacity={0.55} fill="none" />
      <Path d={line(picture.middle)} stroke={tokens.sea} strokeWidth={2} fill="none" />
      <Path d={line(picture.high)} stroke={tokens.sea} strokeWidth={1.4} strokeDasharray="5 4" fill="none" />
      {picture.early.map((tap, i) => {
        const level = 20 * Math.log10(Math.max(tap.left, tap.right, 1e-4));
        return (
          <Line
            key={i}
            x1={x(tap.seconds)}
            x2={x(tap.seconds)}
            y1={y(level * 1.6)}
            y2={y(FLOOR_DB)}
            stroke={tokens.ink}
            strokeWidth={1.6}
            strokeOpacity={0.55}
          />
        );
      })}
      <Ellipse cx={x(0)} cy={TOP + deep / 2} rx={7} ry={deep / 2} fill={tokens.sand} />
      <Line x1={8} x2={width - 4} y1={y(FLOOR_DB)} y2={y(FLOOR_DB)} stroke={tokens.mute} strokeWidth={1} />
      {picture.handles.map((handle, i) => (
        <HandleDot key={i} x={x(handle.x)} y={y(handle.y)} radius={7} strokeWidth={i === 1 ? 3 : 2} />
      ))}
      <ChartText x={width - 10} y={17} anchor="end" strong>
        {headline(picture)}
      </ChartText>
      <ChartText x={width - 10} y={TOP + 14} anchor="end">
        thick low · water 1 kHz · dashed high
      </ChartText>
    </ChartFrame>
  );
}

function headline({ setSeconds, measuredSeconds }: DecayPicture): string {
  const measured = measuredSeconds === null ? 'not falling' : `measured ${saySeconds(measuredSeconds)}`;
  return setSeconds === null ? measured : `set ${saySeconds(setSeconds)} · ${measured}`;
}

function describe(picture: DecayPicture): string {
  const posts =
    picture.early.length > 0
      ? ` ${picture.early.length} first reflections from ${saySeconds(picture.early[0]!.seconds)} on.`
      : '';
  return `Decay: ${headline(picture)}. Begins after ${saySeconds(picture.preDelaySeconds)}.${posts}`;
}
