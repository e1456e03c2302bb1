import { mergeTaps, tapList, type Tap } from '../../analysis/tapList';
import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber } from '../../params/resolve';
import { dragEffect } from '../handles';
import type { Handle, RepeatsPicture } from '../pictures';
import { respond } from '../respond';
import { echoParams } from './params';
import { EchoProcessor } from './processor';

const PICTURE_RATE = 24000;
/** Low enough for drive to be linear: it would compress a loud impulse. */
const IMPULSE = 0.25;
const FEWEST_REPEATS = 4;
const MAX_REPEATS = 16;
const LONGEST_SECONDS = 12;
/** Diffusion spreads one repeat into arrivals up to this far apart. */
const MAX_SMEAR_SECONDS = 0.09;

/** Parameters that the picture holds constant: modulation and what depends on the input. */
const STILL = { hold: false, input: 1, duck: 0, wowDepth: 0, flutterDepth: 0, filterDepth: 0 } as const;

/** Sends one impulse through the effect and lists what returns. */
export function pictureOfEcho(values: ParamValues, context: ValueContext): RepeatsPicture {
  const still: ParamValues = { ...values, ...STILL };
  const firstMs = resolveNumber(echoParams.timeL, values.timeL ?? echoParams.timeL.initial, context);
  const rightMs =
    values.linked === false
      ? resolveNumber(echoParams.timeR, values.timeR ?? echoParams.timeR.initial, context)
      : firstMs;
  const feedback = Math.abs(Number(values.feedback ?? echoParams.feedback.initial));
  const heard = feedback >= 1 ? MAX_REPEATS : Math.ceil(Math.log(0.03) / Math.log(Math.max(feedback, 0.03)));
  const repeats = Math.min(MAX_REPEATS, Math.max(FEWEST_REPEATS, heard + 1));
  const spanSeconds = Math.min(LONGEST_SECONDS, (Math.max(firstMs, rightMs) / 1000) * (repeats + 0.7));
  const { left, right } = respond({
    create: (rate) => new EchoProcessor(rate),
    params: echoParams,
    values: still,
    context,
    sampleRate: PICTURE_RATE,
    seconds: spanSeconds,
    input: (index) => (index === 0 ? [IMPULSE, IMPULSE] : [0, 0]),
  });
  const frame = Math.min(0.004, Math.max(1 / PICTURE_RATE, Math.min(firstMs, rightMs) / 4000));
  const apart = Math.min(MAX_SMEAR_SECONDS, 0.3 * (Math.min(firstMs, rightMs) / 1000));
  const taps = mergeTaps(
    tapList(
      left.map((x) => x / IMPULSE),
      right.map((x) => x / IMPULSE),
      PICTURE_RATE,
      frame,
      -44,
    ),
    apart,
  ).slice(0, 40);
  const near = (seconds: number): Tap | undefined => nearestTap(taps, seconds);
  const first = near(firstMs / 1000);
  const second = near((2 * firstMs) / 1000);
  const handles: Handle[] = [
    ...(first
      ? [
          {
            label: 'Time',
            x: first.seconds,
            y: Math.max(first.left, first.right),
            pullX: dragEffect(echoParams, values, context, 'timeL', 'add', 1000),
            pullY: null,
          },
        ]
      : []),
    ...(second
      ? [
          {
            label: 'Feedback',
            x: second.seconds,
            y: Math.max(second.left, second.right),
            pullX: null,
            pullY: dragEffect(echoParams, values, context, 'feedback', 'times'),
          },
        ]
      : []),
  ];
  return { kind: 'repeats', handles, taps, firstSeconds: firstMs / 1000, feedback, spanSeconds };
}

/** The repeat at a time, so that a handle never moves one of the other side or of a smear. */
function nearestTap(taps: readonly Tap[], seconds: number): Tap | undefined {
  const nearest = [...taps].sort((a, b) => Math.abs(a.seconds - seconds) - Math.abs(b.seconds - seconds))[0];
  return nearest && Math.abs(nearest.seconds - seconds) < 0.2 * seconds + 0.004 ? nearest : undefined;
}
