import { mergeTaps, tapList, type Tap } from '../../analysis/tapList';
import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber, toEngineNumber } from '../../params/resolve';
import { commonParams } from '../common';
import { STEP_FRAMES, stereoRun } from '../define';
import { echoParams } from './params';
import { EchoProcessor } from './processor';

export interface EchoPicture {
  readonly kind: 'echo';
  /** Every repeat with its place, its level on each side and its brightness, as the effect makes them. */
  readonly taps: readonly Tap[];
  /** Time of the first repeat as set, in seconds. */
  readonly firstSeconds: number;
  readonly feedback: number;
  /** Length of the picture in seconds. */
  readonly spanSeconds: number;
}

const PICTURE_RATE = 24000;
/** Quiet enough to stay clear of drive, which bends a loud impulse out of proportion. */
const IMPULSE = 0.25;
const FEWEST_REPEATS = 4;
const MOST_REPEATS = 16;
const LONGEST_SECONDS = 12;
/** Diffusion tears one repeat into arrivals up to this far apart. */
const MOST_SMEAR_SECONDS = 0.09;

/** What stands still for the picture: moving parts and the input's own doing. */
const STILL = { hold: false, input: 1, duck: 0, wowDepth: 0, flutterDepth: 0, filterDepth: 0 } as const;

/** Sends one impulse through the effect and lists what returns. */
export function pictureOfEcho(values: ParamValues, context: ValueContext): EchoPicture {
  const params = { ...commonParams, ...echoParams };
  const still: ParamValues = { ...values, ...STILL };
  const row = Float64Array.from(Object.entries(params), ([id, param]) => toEngineNumber(param, still[id] ?? param.initial, context));
  const firstMs = resolveNumber(echoParams.timeL, values.timeL ?? echoParams.timeL.initial, context);
  const rightMs = values.linked === false ? resolveNumber(echoParams.timeR, values.timeR ?? echoParams.timeR.initial, context) : firstMs;
  const feedback = Math.abs(Number(values.feedback ?? echoParams.feedback.initial));
  const heard = feedback >= 1 ? MOST_REPEATS : Math.ceil(Math.log(0.03) / Math.log(Math.max(feedback, 0.03)));
  const repeats = Math.min(MOST_REPEATS, Math.max(FEWEST_REPEATS, heard + 1));
  const spanSeconds = Math.min(LONGEST_SECONDS, (Math.max(firstMs, rightMs) / 1000) * (repeats + 0.7));
  const [left, right] = respond(row, spanSeconds);
  const frame = Math.min(0.004, Math.max(1 / PICTURE_RATE, Math.min(firstMs, rightMs) / 4000));
  const apart = Math.min(MOST_SMEAR_SECONDS, 0.3 * (Math.min(firstMs, rightMs) / 1000));
  const taps = mergeTaps(tapList(left, right, PICTURE_RATE, frame, -44), apart).slice(0, 40);
  return { kind: 'echo', taps, firstSeconds: firstMs / 1000, feedback, spanSeconds };
}

function respond(row: Float64Array, seconds: number): [Float64Array, Float64Array] {
  const processor = new EchoProcessor(PICTURE_RATE);
  processor.reset(0, row);
  const length = Math.ceil((seconds * PICTURE_RATE) / STEP_FRAMES) * STEP_FRAMES;
  const left = new Float64Array(length);
  const right = new Float64Array(length);
  const input = stereoRun();
  const wet = stereoRun();
  input.left[0] = input.right[0] = IMPULSE;
  for (let at = 0; at < length; at += STEP_FRAMES) {
    processor.process(input, wet, row);
    input.left[0] = input.right[0] = 0;
    left.set(wet.left, at);
    right.set(wet.right, at);
  }
  for (let i = 0; i < length; i += 1) {
    left[i] = left[i]! / IMPULSE;
    right[i] = right[i]! / IMPULSE;
  }
  return [left, right];
}
