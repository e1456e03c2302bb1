import type { SoundData } from '../dsp/soundData';
import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import type { PreparedImpulse } from '../dsp/convolution';
import { PeakGuard } from '../dsp/peakGuard';
import { RunningChannel, type StepListener } from './channel';
import { RunningModulators } from './runningModulators';
import type { AppliedGesture, Gesture } from './gesture';
import { GestureQueue } from './gestureQueue';
import { listenTo, type Listening } from './listening';
import { LoudnessMatcher } from './matcher';
import { BlockMixer } from './blockMixer';
import type { Plan } from './plan';
import { StepClock } from './stepClock';
import { TempoClock } from './tempoClock';
import { connectSidechains } from './sides';
import type { EngineContext } from './engineContext';

/** Full scale, the ceiling of the safety limiter at the output. */
export const CEILING = 1;
const LIMITER_RELEASE_SECONDS = 0.12;

/**
 * Plays a plan: the same class in the audio worklet, in a worker, on the server and in tests.
 * It processes steps of STEP_FRAMES counted from its own beginning, so that blocks of any size give the same samples.
 */
export class Engine {
  position = 0;
  playing = false;
  /** Steps rendered since the beginning. */
  steps = 0;
  channels: RunningChannel[] = [];
  readonly matcher: LoudnessMatcher;
  private plan: Plan | null = null;
  private tempoClock = new TempoClock(null);
  private main: RunningChannel | null = null;
  private readonly context: EngineContext;
  private listening: Listening | null = null;
  private watched: { readonly channel: string; readonly listener: StepListener } | null = null;
  private readonly sounds = new Map<string, SoundData>();
  private readonly impulses = new Map<string, PreparedImpulse>();
  private readonly limiter: PeakGuard;
  private readonly gestures = new GestureQueue();
  /** Position in the piece of the present step's first sample. */
  private stepStart = 0;
  private modulators: RunningModulators;
  private stopping = false;
  private nextPosition = -1;
  /** Sample of the piece from which it has played without a jump: the loop's start once it has looped. */
  startedAt = 0;
  /** Whether it got to that sample by looping. */
  turned = false;
  private used = STEP_FRAMES;
  private trips = 0;

  constructor(readonly sampleRate: number) {
    this.modulators = new RunningModulators(null, sampleRate);
    this.limiter = new PeakGuard(CEILING, LIMITER_RELEASE_SECONDS, sampleRate);
    this.matcher = new LoudnessMatcher(sampleRate);
    this.context = {
      sampleRate,
      mixer: new BlockMixer(),
      seconds: 0,
      constantTempoSeconds: 0,
      constantMetreSeconds: 0,
      time: new StepClock(),
      matcher: this.matcher,
      matched: null,
    };
  }

  /** @param data channels of samples at this engine's rate; not copied */
  addSound(hash: string, data: SoundData): void {
    this.sounds.set(hash, data);
  }

  /** Sets a changed plan. Channels and effects whose ids stay keep their state and their tails. */
  setPlan(plan: Plan): void {
    const before = this.channels;
    this.plan = plan;
    this.tempoClock = new TempoClock(plan);
    this.context.time.setPlan(plan);
    this.updatePosition();
    this.channels = plan.channels.map((channel) => {
      const kept = before.find((running) => running.plan.id === channel.id);
      if (!kept) return new RunningChannel(channel, this.context);
      kept.adopt(channel);
      return kept;
    });
    for (const channel of before) if (!this.channels.includes(channel)) channel.leave();
    this.main = this.channels[this.channels.length - 1] ?? null;
    for (const channel of this.channels)
      for (const send of channel.sends)
        send.target = this.channels.find((candidate) => candidate.plan.id === send.to) ?? null;
    connectSidechains(this.channels);
    this.updateLatencies();
    if (this.latency > 0) for (const channel of this.channels) channel.prepareCompensation();
    this.modulators = new RunningModulators(plan, this.sampleRate, this.modulators);
    this.applyAutomation();
    this.sendImpulses();
    if (this.listening) this.listen(this.listening);
    if (this.watched) this.watch(this.watched.channel, this.watched.listener);
  }

  get turnCount(): number {
    return this.modulators.outputs.length;
  }

  /** Step that a run of the plan is at; -1 while its hold is silent, and while nothing plays. */
  runStepOf(index: number): number {
    return this.playing ? (this.modulators.steps[index] ?? -1) : -1;
  }

  /** Output of a modulator of the plan. */
  modulatorOutputOf(index: number): number {
    return this.modulators.outputs[index] ?? 0;
  }

  /** @param key as the plan names it */
  addImpulse(key: string, impulse: PreparedImpulse): void {
    this.impulses.set(key, impulse);
    this.sendImpulses();
  }

  hasImpulse(key: string): boolean {
    return this.impulses.has(key);
  }

  private sendImpulses(): void {
    for (const channel of this.channels) for (const slot of channel.chain.every) slot.useImpulses(this.impulses);
    const needed = new Set(
      this.channels.flatMap((channel) => channel.chain.every.map((slot) => slot.plan.impulse?.key)),
    );
    for (const key of this.impulses.keys()) if (!needed.has(key)) this.impulses.delete(key);
  }

  /** Starts at a sample of the piece at the next step. */
  play(fromSample: number): void {
    this.position = fromSample;
    this.startedAt = fromSample;
    this.turned = false;
    this.playing = true;
    this.stopping = false;
    this.nextPosition = -1;
    this.updatePosition();
    this.modulators.followers.prime(this.channels, this.sounds, fromSample);
    // The main output first: its macros modulate parameters of other channels, and may be modulated themselves.
    this.modulators.evaluate(this.tempoClock, this.position, this.channels, this.main);
    this.main?.locate(this.tempoClock, this.modulators.outputs);
    this.modulators.evaluate(this.tempoClock, this.position, this.channels, this.main);
    for (const channel of this.channels) channel.locate(this.tempoClock, this.modulators.outputs);
    this.updateLatencies();
    for (const channel of this.channels) channel.resetCompensation(this.main!);
  }

  /** Stops the clips by a fade of one step; tails of effects ring out. */
  stop(): void {
    if (this.playing) this.stopping = true;
  }

  /** Seeks to another position; while playing, by a fade of one step. */
  locate(sample: number): void {
    if (this.playing && !this.stopping) this.nextPosition = sample;
    else {
      this.position = sample;
      this.updatePosition();
      this.applyAutomation();
    }
  }

  listen(listening: Listening): void {
    this.listening = listening;
    this.context.matched = listenTo(this.channels, listening);
    if (this.matcher.on !== listening.matched) this.matcher.clear();
    this.matcher.on = listening.matched;
  }

  /** Connects a listener to one channel, before and after its effects; null disconnects it. */
  watch(channel: string | null, listener: StepListener): void {
    this.watched = channel === null ? null : { channel, listener };
    for (const running of this.channels) running.listener = running.plan.id === channel ? listener : null;
  }

  queue(gesture: Gesture): void {
    this.gestures.push(gesture);
  }

  /** Tagged gestures that have taken effect since last asked; null for none. */
  takeApplied(): readonly AppliedGesture[] | null {
    return this.gestures.takeApplied();
  }

  /** Lowest gain of the safety limiter since last asked. */
  takeLimiterGain(): number {
    return this.limiter.takeLowest();
  }

  /** Lowest gain of any loop's guard since last asked. */
  takeGuardGain(): number {
    let lowest = 1;
    for (let c = 0; c < this.channels.length; c += 1) {
      const { every } = this.channels[c]!.chain;
      for (let s = 0; s < every.length; s += 1) {
        const gain = every[s]!.takeGuardGain();
        if (gain < lowest) lowest = gain;
      }
    }
    return lowest;
  }

  /** Times that a non-finite sample was caught and silenced. */
  get caught(): number {
    let sum = this.trips;
    for (let c = 0; c < this.channels.length; c += 1) {
      const { every } = this.channels[c]!.chain;
      for (let s = 0; s < every.length; s += 1) sum += every[s]!.trips;
    }
    return sum;
  }

  /** Latency of its output in samples, due to effects with look-ahead. */
  get latency(): number {
    return this.main?.outputLatency ?? 0;
  }

  /** Position in the piece of the sound that leaves it now. */
  get heardPosition(): number {
    if (!this.playing) return this.position;
    const heard = this.position - this.latency;
    if (heard >= this.startedAt) return heard;
    const loop = this.plan!.loop;
    return this.turned ? loop.end - (loop.start - heard) : this.startedAt;
  }

  /** True when no tail is audible any more. */
  get silent(): boolean {
    return this.channels.every((channel) => channel.silent);
  }

  /** Writes `frames` samples to each side. */
  process(left: Float32Array, right: Float32Array, frames: number): void {
    let done = 0;
    while (done < frames) {
      if (this.used === STEP_FRAMES) {
        this.step();
        this.used = 0;
      }
      const n = Math.min(STEP_FRAMES - this.used, frames - done);
      if (this.main) {
        put(this.main.bus.left, this.used, left, done, n);
        put(this.main.bus.right, this.used, right, done, n);
      } else {
        left.fill(0, done, done + n);
        right.fill(0, done, done + n);
      }
      this.used += n;
      done += n;
    }
  }

  /**
   * Processes a step of all channels with this sound instead of clips, for warm-up. To be followed by `forget` before
   * the next `process`.
   */
  rehearse(sound: StereoBlock): void {
    const { main, channels } = this;
    if (!main) return;
    this.context.matched = null;
    for (let c = 0; c < channels.length; c += 1) {
      channels[c]!.listener = null;
      channels[c]!.clear();
      if (channels[c] !== main) channels[c]!.receive(sound);
    }
    this.applyAutomation();
    this.sound(main);
  }

  /** Clears all sound; plan, position, gestures and auditioning stay. */
  forget(): void {
    for (const channel of this.channels) channel.forget();
    this.limiter.clear();
    this.used = STEP_FRAMES;
    if (this.listening) this.listen(this.listening);
    if (this.watched) this.watch(this.watched.channel, this.watched.listener);
  }

  private step(): void {
    const { main, channels } = this;
    this.steps += 1;
    if (!main) return;
    this.updatePosition();
    this.stepStart = this.position;
    for (let c = 0; c < channels.length; c += 1) channels[c]!.clear();
    if (this.playing) this.readStep();
    this.gestures.apply(this.channels, this.stepStart, this.playing);
    if (this.modulators.followers.some) this.modulators.followers.process(channels);
    if (this.playing || this.modulators.followers.some) {
      this.tempoClock.read(this.position);
      this.applyAutomation();
    }
    this.sound(main);
  }

  /** Processes the bus of every channel and passes it on, ending with the main output. */
  private sound(main: RunningChannel): void {
    const { channels } = this;
    const { order } = this.plan!;
    this.updateLatencies();
    for (let c = 0; c < order.length; c += 1) {
      const channel = channels[order[c]!]!;
      channel.sendToMain(main, channel.process());
    }
    main.process();
    this.protect(main);
  }

  /** Sets the input latency of each channel: the highest of its inputs. */
  private updateLatencies(): void {
    const { channels, main } = this;
    const { order } = this.plan!;
    for (let c = 0; c < channels.length; c += 1) channels[c]!.inputLatency = 0;
    for (let c = 0; c < order.length; c += 1) {
      const channel = channels[order[c]!]!;
      channel.updateLatency();
      const late = channel.outputLatency;
      if (late > main!.inputLatency) main!.inputLatency = late;
      for (let s = 0; s < channel.sends.length; s += 1) channel.sends[s]!.target?.raiseInputLatency(late);
    }
    main?.updateLatency();
    for (let c = 0; c < order.length; c += 1) channels[order[c]!]!.updateSharedDelay(main!);
  }

  /** Moves everything to the present position in the piece. */
  private updatePosition(): void {
    const { context, sampleRate, tempoClock } = this;
    tempoClock.read(this.position);
    context.seconds = this.position / sampleRate;
    context.time.begin(this.position, this.playing);
    context.constantTempoSeconds = (tempoClock.sample / sampleRate) * tempoClock.tempoRatio;
    context.constantMetreSeconds = (tempoClock.barSample / sampleRate) * tempoClock.tempoRatio * tempoClock.barRatio;
  }

  /** Applies lanes and links at the present position. */
  private applyAutomation(): void {
    this.modulators.evaluate(this.tempoClock, this.position, this.channels, this.main);
    for (let c = 0; c < this.channels.length; c += 1) {
      this.channels[c]!.followLanes(this.tempoClock);
      this.channels[c]!.followLinks(this.modulators.outputs, this.tempoClock.sample);
    }
  }

  private readStep(): void {
    const { channels, plan } = this;
    let filled = 0;
    const loop = plan!.loop;
    while (filled < STEP_FRAMES) {
      const looping = loop.on && this.position < loop.end && this.nextPosition < 0;
      const n = looping ? Math.min(STEP_FRAMES - filled, loop.end - this.position) : STEP_FRAMES - filled;
      for (let c = 0; c < channels.length - 1; c += 1)
        channels[c]!.readClips(this.sounds, this.position, n, filled, this.startedAt, looping ? loop.end : Infinity);
      this.position += n;
      filled += n;
      if (looping && this.position >= loop.end) {
        this.position = loop.start;
        this.startedAt = loop.start;
        this.turned = true;
      }
    }
    if (!this.stopping && this.nextPosition < 0) return;
    for (let c = 0; c < channels.length - 1; c += 1) channels[c]!.fadeOut();
    if (this.nextPosition >= 0) {
      this.position = this.nextPosition;
      this.startedAt = this.nextPosition;
      this.nextPosition = -1;
      this.turned = false;
    }
    if (this.stopping) {
      this.playing = false;
      this.stopping = false;
    }
  }

  /** Replaces non-finite samples by silence and limits the rest to the ceiling. */
  private protect(main: RunningChannel): void {
    const { left, right } = main.bus;
    if (!this.context.mixer.finite(main.bus)) {
      left.fill(0);
      right.fill(0);
      this.trips += 1;
    }
    this.limiter.process(left, right, STEP_FRAMES);
  }
}

/**
 * Output samples below this, -600 dB, become zero: near single-precision denormals, which the browser's audio thread
 * flushes and other threads keep, live and printed output would differ.
 */
const FLUSH_BELOW = 1e-30;

function put(from: Float64Array, at: number, to: Float32Array, place: number, n: number): void {
  for (let i = 0; i < n; i += 1) {
    const sample = from[at + i]!;
    to[place + i] = sample < FLUSH_BELOW && sample > -FLUSH_BELOW ? 0 : sample;
  }
}
