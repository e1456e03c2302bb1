import { handClap, standInHears } from '../core/impulses/standIn';
import { exponentialSweep, placeOfSweep, SWEEP_SECONDS } from '../core/impulses/sweep';
import { toPlaces, type FromPlaces } from './soundProtocol';

/**
 * Long transforms away from the page: the response of the simulated room, and the impulse response from a recorded
 * sweep.
 */
self.onmessage = (event: MessageEvent<unknown>) => {
  const order = toPlaces.parse(event.data);
  const answer: FromPlaces = {
    channels:
      order.type === 'standIn'
        ? standIn(order.sweep, order.seconds, order.sampleRate)
        : swept(order.recorded, order.sampleRate),
  };
  self.postMessage(answer);
};

function standIn(sweep: boolean, seconds: number, sampleRate: number): Float32Array[] {
  const played = sweep ? padded(seconds, sampleRate) : handClap(seconds, sampleRate);
  return standInHears(played, sampleRate);
}

function padded(seconds: number, sampleRate: number): Float32Array {
  const played = new Float32Array(Math.round(seconds * sampleRate));
  played.set(exponentialSweep(SWEEP_SECONDS, sampleRate).subarray(0, played.length));
  return played;
}

const swept = (recorded: readonly Float32Array[], sampleRate: number): Float32Array[] =>
  recorded.map((side) => placeOfSweep(side, exponentialSweep(SWEEP_SECONDS, sampleRate)));
