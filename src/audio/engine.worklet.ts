import { CountedEngine } from '../core/engine/countedEngine';
import { Engine } from '../core/engine/engine';
import { Rehearsal } from '../core/engine/rehearsal';
import type { Gesture } from '../core/engine/gesture';
import type { Plan } from '../core/engine/plan';
import type { PreparedImpulse } from '../core/dsp/convolution';
import { GestureReader } from './gestureMemory';
import { MeterWriter } from './meterMemory';
import { ScopeWriter } from './scopeMemory';
import { toEngine, type FromEngine, type ToEngine } from './protocol';

/** Peaks fall by about 20 dB a second of 128-sample blocks. */
const FALL = 0.9939;
/** The clock may run ahead of the sound by this much before a block counts as late; devices take blocks in bunches. */
const LATE_SECONDS = 0.06;
/** Two clocks drift apart by up to this much a second; this much is tolerated. */
const DRIFT = 2e-4;
/** A device settles in its first moments; nothing is counted then. */
const SETTLING_SECONDS = 1;
const BLOCKS_PER_LOAD = 130;
/**
 * Of so many blocks one is timed: asking for the time is not free where a processor has just slept. Odd, as devices
 * take blocks in fours.
 */
const BLOCKS_PER_LOOK = 5;
/** It reports being idle after this long without sound or messages; and again after as long. */
const IDLE_SECONDS = 5;
/** How long a stretch of rehearsing lasts: messages meanwhile wait no longer than this. */
const REHEARSED_MS = 4;

interface WorkletScope {
  readonly sampleRate: number;
  readonly currentTime: number;
  registerProcessor(name: string, processor: unknown): void;
  readonly AudioWorkletProcessor: new () => { readonly port: MessagePort };
}
const scope = globalThis as unknown as WorkletScope;

/** The engine on the audio thread: 128 samples at a time, messages in between, meters through shared memory. */
class EngineProcessor extends scope.AudioWorkletProcessor {
  private readonly engine = new Engine(scope.sampleRate);
  private readonly counted = new CountedEngine(this.engine, scope.sampleRate);
  private readonly meters: MeterWriter;
  private readonly scopeWriter: ScopeWriter;
  private readonly gestures: GestureReader;
  private readonly rehearsal = new Rehearsal(this.engine);
  /** The engine rehearses: its output is discarded. */
  private rehearsing = false;
  /**
   * Port by which it posts itself the next rehearsal, so that blocks and messages come in between; null until it is
   * given.
   */
  private cue: MessagePort | null = null;
  private cued = false;
  private plan: Plan | null = null;
  private late = 0;
  private ahead = Infinity;
  private settled = 0;
  private spent = 0;
  private blocks = 0;
  private sinceLoad = 0;
  private load = 0;
  private idleFrames = 0;

  constructor(options: {
    processorOptions: {
      memory: SharedArrayBuffer;
      scope: SharedArrayBuffer;
      gestures: SharedArrayBuffer;
      first: readonly unknown[];
    };
  }) {
    super();
    this.meters = new MeterWriter(options.processorOptions.memory);
    this.scopeWriter = new ScopeWriter(options.processorOptions.scope);
    this.gestures = new GestureReader(options.processorOptions.gestures);
    for (const message of options.processorOptions.first) this.take(message);
    this.port.onmessage = (event: MessageEvent<unknown>) => {
      this.gestures.beforeMessage(this.queueGesture);
      this.take(event.data);
    };
  }

  take(data: unknown): void {
    const parsed = toEngine.safeParse(data);
    if (!parsed.success) {
      this.port.postMessage({ type: 'refused', message: parsed.error.message });
      return;
    }
    this.handleMessage(parsed.data);
  }

  handleMessage(message: ToEngine): void {
    const { engine } = this;
    this.idleFrames = 0;
    // Sounds are not read meanwhile, and gestures are read before the next block.
    if (message.type !== 'sounds' && message.type !== 'gesture') this.endRehearsal();
    if (message.type === 'sounds') for (const sound of message.sounds) engine.addSound(sound.hash, sound.channels);
    else if (message.type === 'plan') this.usePlan(message.plan);
    else if (message.type === 'impulse') this.useImpulse(message.key, message.impulse);
    else if (message.type === 'cue') this.useCue(message.ports);
    else if (message.type === 'play') this.counted.play(message.from, message.countInBars);
    else if (message.type === 'stop') this.counted.stop();
    else if (message.type === 'click') this.counted.click = message.on;
    else if (message.type === 'watch') engine.watch(message.channel, this.scopeWriter);
    else if (message.type === 'locate') this.counted.locate(message.to);
    else if (message.type === 'listen') engine.listen(message.listening);
    else {
      this.gestures.learn(message.target, message.gesture);
      engine.queue(message.gesture);
    }
    this.callRehearsal();
  }

  readonly queueGesture = (gesture: Gesture): void => {
    this.idleFrames = 0;
    this.engine.queue(gesture);
  };

  usePlan(plan: Plan): void {
    this.plan = plan;
    this.engine.setPlan(plan);
    this.counted.setPlan(plan);
    this.rehearsal.want(plan);
  }

  useImpulse(key: string, impulse: PreparedImpulse): void {
    this.engine.addImpulse(key, impulse);
    if (this.plan) this.rehearsal.want(this.plan);
  }

  useCue([here, there]: readonly [MessagePort, MessagePort]): void {
    here.onmessage = () => this.rehearse();
    this.cue = there;
  }

  /** Schedules the next rehearsal, when there is something to rehearse and nothing is heard. */
  callRehearsal(): void {
    if (!this.cue || this.cued || this.rehearsal.done || !(this.rehearsing || this.idle)) return;
    this.cued = true;
    this.cue.postMessage(null);
  }

  get idle(): boolean {
    return !this.engine.playing && !this.counted.counting && this.engine.silent;
  }

  rehearse(): void {
    this.cued = false;
    if (!this.rehearsing && !this.idle) return;
    this.rehearsing = true;
    const end = Date.now() + REHEARSED_MS;
    while (!this.rehearsal.done && Date.now() < end) this.rehearsal.step();
    if (this.rehearsal.done) this.endRehearsal();
    this.callRehearsal();
  }

  endRehearsal(): void {
    if (this.rehearsing) this.engine.forget();
    this.rehearsing = false;
  }

  process(_inputs: unknown, outputs: Float32Array[][]): boolean {
    if (this.rehearsing) return true;
    const output = outputs[0]!;
    const left = output[0]!;
    const right = output[1] ?? left;
    this.gestures.read(this.queueGesture);
    this.blocks += 1;
    if (this.blocks % BLOCKS_PER_LOOK === 0) {
      const began = Date.now();
      this.counted.process(left, right, left.length);
      this.watch(began, left.length);
    } else this.counted.process(left, right, left.length);
    const gestures = this.engine.takeApplied();
    if (gestures) this.port.postMessage({ type: 'applied', gestures: [...gestures] } satisfies FromEngine);
    this.report(scope.currentTime + left.length / scope.sampleRate);
    this.reportIdle(left.length);
    return true;
  }

  reportIdle(frames: number): void {
    this.idleFrames = this.idle && this.rehearsal.done ? this.idleFrames + frames : 0;
    if (this.idleFrames < IDLE_SECONDS * scope.sampleRate) return;
    this.idleFrames = 0;
    // The clock stops while the context is suspended, and the device settles anew afterwards.
    this.settled = 0;
    this.port.postMessage({ type: 'idle' } satisfies FromEngine);
  }

  /** The clock has whole milliseconds only; over many blocks the share of time spent still comes out right. */
  watch(began: number, frames: number): void {
    const ended = Date.now();
    this.spent += ended - began;
    this.sinceLoad += frames;
    if (this.blocks >= BLOCKS_PER_LOAD) {
      const share = this.spent / 1000 / (this.sinceLoad / scope.sampleRate);
      this.load += (share - this.load) * 0.2;
      this.blocks = 0;
      this.spent = 0;
      this.sinceLoad = 0;
      this.callRehearsal();
    }
    this.listenForGaps(began / 1000 - scope.currentTime, (BLOCKS_PER_LOOK * frames) / scope.sampleRate);
  }

  /** When sound is missed, the wall clock gets ahead of the audio clock and stays there. */
  listenForGaps(ahead: number, blockSeconds: number): void {
    this.settled += blockSeconds;
    if (this.settled < SETTLING_SECONDS || ahead < this.ahead) this.ahead = ahead;
    else if (ahead > this.ahead + LATE_SECONDS) {
      if (this.engine.playing) this.late += 1;
      this.ahead = ahead;
    } else this.ahead += blockSeconds * DRIFT;
  }

  /** @param clock seconds on the audio clock at the end of the block */
  report(clock: number): void {
    const { engine, meters } = this;
    const { channels } = engine;
    let slot = 0;
    for (let i = 0; i < channels.length; i += 1) {
      const channel = channels[i]!;
      meters.channel(i, channel.peakLeft, channel.peakRight, channel.dryPeak, channel.wetPeak, FALL);
      meters.image(i, channel.image.correlation, channel.image.monoDb);
      const { every } = channel.chain;
      for (let s = 0; s < every.length; s += 1) {
        const { dryPeak, wetPeak, activity, lagFrames } = every[s]!;
        meters.slot(slot, dryPeak, wetPeak, activity, lagFrames / scope.sampleRate, FALL);
        slot += 1;
      }
    }
    const heard = engine.heardPosition;
    for (let i = 0; i < engine.turnCount; i += 1) {
      meters.turn(i, engine.modulatorOutputOf(i));
      meters.runStep(i, engine.runStepOf(i));
    }
    meters.state(
      engine.playing,
      heard,
      clock - heard / scope.sampleRate,
      engine.turned,
      engine.takeLimiterGain(),
      engine.takeGuardGain(),
      engine.caught,
      engine.matcher.gainDb,
    );
    meters.work(this.load, this.late);
  }
}

scope.registerProcessor('zephiro-engine', EngineProcessor);
