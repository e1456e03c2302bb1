import { Line, Path } from 'react-native-svg';
import type { ImpulsePicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText, VerticalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type HandledChartProps } from './Grip';
import { sayMark, saySeconds, timeMarks } from './timeAxis';

const PAD = 18;
const TOP = 26;
const FLOOR_DB = -72;

/**
 * An impulse as a wave on both sides of the waterline, what is left out of it as ink alone, with posts to trim and fade
 * it.
 */
export function ImpulseChart({ picture, width, height, onPull }: HandledChartProps<ImpulsePicture>) {
  const tokens = useTokens();
  const room = width - 2 * PAD;
  const half = (height - TOP - RULER_HEIGHT) / 2;
  const middle = TOP + half;
  const x = (at: number): number => PAD + (at / picture.spanSeconds) * room;
  const tall = (db: number): number => Math.max(0, 1 - db / FLOOR_DB) * (half - 2);
  const shape = (up: readonly number[], down: readonly number[]): string => {
    const at = (i: number): string => (PAD + ((i + 0.5) / up.length) * room).toFixed(1);
    const over = up.map((db, i) => `${i === 0 ? 'M' : 'L'}${at(i)} ${(middle - tall(db)).toFixed(1)}`).join('');
    return `${over}${down
      .map((db, i) => `L${at(i)} ${(middle + tall(db)).toFixed(1)}`)
      .reverse()
      .join('')}Z`;
  };
  const marks = timeMarks(picture.spanSeconds, width > 500 ? 9 : 5);
  const post = (label: string): number => (label === 'Fade' ? TOP : middle);
  return (
    <ChartFrame
      label={describe(picture)}
      width={width}
      height={height}
      over={
        <Grips
          handles={picture.handles}
          at={(handle) => ({ x: x(handle.x), y: post(handle.label) })}
          unitX={(px) => ((px - PAD) / room) * picture.spanSeconds}
          unitY={(py) => py}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid
        marks={marks.map((at) => ({ x: x(at), text: sayMark(at) }))}
        top={TOP}
        height={height}
        startsAtEdge
      />
      <Path
        d={shape(picture.left, picture.right)}
        fill="none"
        stroke={tokens.mute}
        strokeWidth={1}
        strokeOpacity={0.7}
      />
      <Path
        d={shape(picture.usedLeft, picture.usedRight)}
        fill={tokens.seaSoft}
        stroke={tokens.sea}
        strokeWidth={1.6}
      />
      <Line x1={8} x2={width - 8} y1={middle} y2={middle} stroke={tokens.mute} strokeWidth={1} />
      <Path
        d={`M${x(picture.fadeSeconds)} ${TOP}L${x(picture.toSeconds)} ${middle}`}
        stroke={tokens.ink}
        strokeWidth={1.4}
        strokeDasharray="4 3"
        fill="none"
      />
      {[picture.fromSeconds, picture.toSeconds].map((at, i) => (
        <Line key={i} x1={x(at)} x2={x(at)} y1={TOP} y2={height - RULER_HEIGHT} stroke={tokens.ink} strokeWidth={1.4} />
      ))}
      {picture.handles.map(({ label, x: at }) => (
        <HandleDot key={label} x={x(at)} y={post(label)} radius={7} strokeWidth={2.4} />
      ))}
      <ChartText x={width - 10} y={16} anchor="end" strong>
        {headline(picture)}
      </ChartText>
    </ChartFrame>
  );
}

function headline({ measuredSeconds, backwards, fromSeconds, toSeconds }: ImpulsePicture): string {
  const way = backwards ? 'backwards · ' : '';
  const decay = measuredSeconds === null ? 'not falling' : `decay ${saySeconds(measuredSeconds)}`;
  return `${way}${saySeconds(toSeconds - fromSeconds)} used · ${decay}`;
}

function describe(picture: ImpulsePicture): string {
  const { spanSeconds, fromSeconds, toSeconds, fadeSeconds } = picture;
  return `Impulse of ${saySeconds(spanSeconds)}: ${headline(picture)}. From ${saySeconds(fromSeconds)} to ${saySeconds(toSeconds)}, fading from ${saySeconds(fadeSeconds)} on.`;
}
