import { commonParams } from '../common';
import { paramIndices } from '../paramIndices';
import { echoParams } from './params';

/** How many values a processor is given. */
export const VALUE_COUNT = Object.keys({ ...commonParams, ...echoParams }).length;
/** Index of each parameter among them. */
export const P = paramIndices(echoParams);
