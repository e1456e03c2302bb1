import { commonParams } from '../common';
import { paramIndices } from '../paramIndices';
import { echoParams } from './params';

/** Number of values that the processor is given. */
export const VALUE_COUNT = Object.keys({ ...commonParams, ...echoParams }).length;
/** Index of each parameter among them. */
export const P = paramIndices(echoParams);
