import { commonParams } from '../common';
import { echoParams } from './params';

/** Where each parameter lies in the row of values that travels to the processor. */
const order = Object.keys({ ...commonParams, ...echoParams });
/** How many values travel. */
export const V_COUNT = order.length;
const at = (id: keyof typeof echoParams): number => order.indexOf(id);

export const V_TIME_L = at('timeL');
export const V_TIME_R = at('timeR');
export const V_LINKED = at('linked');
export const V_FEEDBACK = at('feedback');
export const V_INPUT = at('input');
export const V_HOLD = at('hold');
export const V_CHANGE = at('change');
export const V_ROUTING = at('routing');
export const V_FIRST_SIDE = at('firstSide');
export const V_SIDE_OFFSET = at('sideOffset');
export const V_CROSS_FEED = at('crossFeed');
export const V_WIDTH = at('width');
export const V_FILTER = at('filter');
export const V_CUTOFF = at('cutoff');
export const V_RESONANCE = at('resonance');
export const V_FILTER_RATE = at('filterRate');
export const V_FILTER_DEPTH = at('filterDepth');
export const V_EQ_LOW = at('eqLow');
export const V_EQ_MID = at('eqMid');
export const V_EQ_HIGH = at('eqHigh');
export const V_DRIVE_KIND = at('driveKind');
export const V_DRIVE = at('drive');
export const V_RATE_REDUCTION = at('rateReduction');
export const V_BIT_DEPTH = at('bitDepth');
export const V_DIFFUSION = at('diffusion');
export const V_DIFFUSION_SIDES = at('diffusionSides');
export const V_WOW_RATE = at('wowRate');
export const V_WOW_DEPTH = at('wowDepth');
export const V_FLUTTER_RATE = at('flutterRate');
export const V_FLUTTER_DEPTH = at('flutterDepth');
export const V_DUCK = at('duck');
export const V_DUCK_THRESHOLD = at('duckThreshold');
export const V_DUCK_RELEASE = at('duckRelease');
