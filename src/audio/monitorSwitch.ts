import { MONITOR_GAINS, type Monitor } from '../core/engine/monitor';

/** Duration of changes in seconds, so that they do not click. */
const FADE_SECONDS = 0.01;

/** The switch between the engine and the speakers. */
export class MonitorSwitch {
  readonly input: AudioNode;
  private readonly gains: readonly GainNode[];

  constructor(
    private readonly context: AudioContext,
    output: AudioNode,
    monitor: Monitor,
  ) {
    const splitter = context.createChannelSplitter(2);
    const merger = context.createChannelMerger(2);
    this.gains = MONITOR_GAINS[monitor].map((value, i) => {
      const gain = context.createGain();
      gain.gain.value = value;
      splitter.connect(gain, i >> 1);
      gain.connect(merger, 0, i & 1);
      return gain;
    });
    merger.connect(output);
    this.input = splitter;
  }

  set(monitor: Monitor): void {
    this.gains.forEach(({ gain }, i) =>
      gain.setTargetAtTime(MONITOR_GAINS[monitor][i]!, this.context.currentTime, FADE_SECONDS / 3),
    );
  }
}
