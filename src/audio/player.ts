import type { Gesture } from '../core/engine/gesture';
import type { Listening } from '../core/engine/listening';
import type { Monitor } from '../core/engine/monitor';
import type { Plan } from '../core/engine/plan';
import { MonitorSwitch } from './monitorSwitch';
import { ImpulseMaker } from './impulses';
import { GestureWriter, makeGestureMemory } from './gestureMemory';
import { makeMeterMemory, MeterReader } from './meterMemory';
import { makeScopeMemory } from './scopeMemory';
import { fromEngine, type ToEngine } from './protocol';
import type { LoadedSound } from './soundLibrary';
import { reasonOf } from '../core/reasonOf';

/** Why there is no sound, in words for the screen. */
export class NoAudio extends Error {}

/** Time after which a browser that has not started sound most likely will not. */
const WAKE_MS = 3000;
const NO_OUTPUT =
  'The browser gives no sound: it waits for an audio output that does not answer. Connect or choose one, then press Play again. Your piece is as it was.';

/** An audio thread that is idle is suspended unless it was sent a message within so long. */
const IDLE_MS = 4000;

/** Maximum difference of the browser's output timestamps from its reported latency; beyond it they are ignored. */
const DOUBTED_SECONDS = 0.5;

/** The browser's audio thread works in blocks of so many frames. */
const BLOCK_FRAMES = 128;
const MAX_REACTION = 200;
const KEPT_REACTIONS = 512;

/** Output device and latency. */
export interface OutputChoice {
  /** Id of a device; empty for the system's own output. */
  readonly sinkId: string;
  readonly latency: AudioContextLatencyCategory;
}

const PLAIN_OUTPUT: OutputChoice = { sinkId: '', latency: 'interactive' };

const isSameOutput = (a: OutputChoice, b: OutputChoice): boolean => a.sinkId === b.sinkId && a.latency === b.latency;

/** A browser that lets a page choose the output. */
type SinkContext = AudioContext & { setSinkId(id: string): Promise<void> };
export const canChooseOutput = (): boolean =>
  typeof AudioContext !== 'undefined' && 'setSinkId' in AudioContext.prototype;

/**
 * The engine on the browser's audio thread. Made silent; `play` is the first thing that needs a tap. Messages that are
 * sent before the thread is ready are queued.
 */
export class Player {
  readonly meters: MeterReader;
  /** Memory with the sound of the watched channel. */
  readonly scope: SharedArrayBuffer;
  private readonly memory: SharedArrayBuffer;
  /** Ring of gestures to the running audio thread; null while there is none. */
  private gestures: GestureWriter | null = null;
  /** Messages sent to it. */
  private sent = 0;
  private context: AudioContext | null = null;
  private node: AudioWorkletNode | null = null;
  private starting: Promise<void> | null = null;
  private click = false;
  private monitor: Monitor = 'stereo';
  private monitorSwitch: MonitorSwitch | null = null;
  private plan: Plan | null = null;
  private readonly sounds = new Map<string, LoadedSound>();
  private readonly impulses = new ImpulseMaker(this.sounds, (key, impulse) =>
    this.tell({ type: 'impulse', key, impulse: { frames: impulse.frames, stages: [...impulse.stages] } }),
  );
  private listening: Listening | null = null;
  /** Channels that views ask for, the newest last: that one is watched. */
  private watchers: readonly { readonly channel: string }[] = [];
  private parked = 0;
  private asked: number | null = null;
  private playing = false;
  /** Called when gestures have taken effect, with their tags. */
  private readonly waiting = new Map<number, { readonly at: number | null; readonly tell: (sample: number) => void }>();
  private tags = 0;
  private readonly reactions: number[] = [];
  /** The audio context is suspended for being idle, or about to be. */
  private suspended = false;
  /** The output for which the audio thread was begun. */
  private openedOutput: OutputChoice;
  private reopening = Promise.resolve();
  private closed = false;
  private lastMessageAt = -Infinity;
  /** Called when the audio thread is sent a message, or its context starts or stops running. */
  onActivity: () => void = () => undefined;

  constructor(
    readonly sampleRate: number,
    private output: OutputChoice = PLAIN_OUTPUT,
  ) {
    if (typeof SharedArrayBuffer === 'undefined') {
      throw new NoAudio(
        'This browser keeps shared memory shut, which the sound needs. Open Zephiro from its own server, in a current browser.',
      );
    }
    this.openedOutput = output;
    this.memory = makeMeterMemory();
    this.scope = makeScopeMemory();
    this.meters = new MeterReader(this.memory);
  }

  setPlan(plan: Plan): void {
    this.plan = plan;
    this.tell({ type: 'plan', plan });
    this.impulses.want(plan);
  }

  addSound(sound: LoadedSound): void {
    if (this.sounds.has(sound.hash)) return;
    this.sounds.set(sound.hash, sound);
    this.tell({ type: 'sounds', sounds: [{ hash: sound.hash, channels: [...sound.channels] }] });
    this.impulses.next();
  }

  /** @param countInBars bars that are clicked before it begins */
  async play(fromSample: number, countInBars = 0): Promise<void> {
    await this.resume();
    this.playing = true;
    this.asked = fromSample;
    this.tell({ type: 'play', from: fromSample, countInBars });
  }

  stop(): void {
    this.playing = false;
    this.tell({ type: 'stop' });
  }

  locate(sample: number): void {
    this.parked = sample;
    if (!this.playing) this.asked = sample;
    this.tell({ type: 'locate', to: sample });
  }

  /** Clicks on the beats while it plays; only what is listened to has them. */
  setClick(on: boolean): void {
    this.click = on;
    this.tell({ type: 'click', on });
  }

  /** How the main output is listened to; what is printed does not change. */
  setMonitor(monitor: Monitor): void {
    this.monitor = monitor;
    this.monitorSwitch?.set(monitor);
  }

  listen(listening: Listening): void {
    this.listening = listening;
    this.tell({ type: 'listen', listening });
  }

  /** Watches a channel: its sound is written to `scope`. @returns ends it, and watches the previous one again */
  watch(channel: string): () => void {
    const watcher = { channel };
    this.setWatchers([...this.watchers, watcher]);
    return () => this.setWatchers(this.watchers.filter((other) => other !== watcher));
  }

  private setWatchers(watchers: readonly { readonly channel: string }[]): void {
    this.watchers = watchers;
    this.tell({ type: 'watch', channel: this.watched });
  }

  private get watched(): string | null {
    return this.watchers[this.watchers.length - 1]?.channel ?? null;
  }

  /**
   * @param onApplied called with the sample of the piece at which the engine did it; never while the thread is not
   * ready
   */
  gesture(gesture: Gesture, onApplied?: (sample: number) => void): void {
    if (!onApplied) {
      this.sendGesture(gesture);
      return;
    }
    const tag = (this.tags += 1);
    this.waiting.set(tag, { at: gesture.atSample === 0 ? this.computedSample : null, tell: onApplied });
    this.sendGesture({ ...gesture, tag });
  }

  private sendGesture(gesture: Gesture): void {
    const { gestures } = this;
    if (!gestures) return;
    if (gestures.write(gesture, this.sent)) this.wake();
    else this.tell({ type: 'gesture', gesture, target: gestures.register(gesture) });
  }

  private hear(data: unknown): void {
    const heard = fromEngine.safeParse(data).data;
    if (heard?.type === 'idle') this.suspendIfIdle();
    if (heard?.type !== 'applied') return;
    for (const { tag, sample } of heard.gestures) {
      const asked = this.waiting.get(tag);
      this.waiting.delete(tag);
      if (asked && asked.at !== null) this.noteReaction((sample - asked.at) / BLOCK_FRAMES);
      asked?.tell(sample);
    }
  }

  /** The sample of the piece that the audio thread computes at this moment, by the browser's audio clock. */
  private get computedSample(): number | null {
    const { context } = this;
    if (!context || !this.playing || this.asked !== null) return null;
    return (context.currentTime - this.meters.read().origin) * this.sampleRate;
  }

  private noteReaction(blocks: number): void {
    // If playing has jumped meanwhile, there is no result.
    if (blocks < -MAX_REACTION || blocks > MAX_REACTION) return;
    this.reactions.push(blocks < 0 ? 0 : blocks);
    if (this.reactions.length > KEPT_REACTIONS) this.reactions.shift();
  }

  /** Blocks of 128 frames from a hand to where the engine acted: a quantile of the last ones; null for none yet. */
  reactionBlocks(quantile: number): number | null {
    const sorted = [...this.reactions].sort((a, b) => a - b);
    return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * quantile))] ?? null;
  }

  /**
   * Sample of the piece now being computed; until the thread has received it, and while nothing plays, the position
   * last requested.
   */
  get position(): number {
    if (this.asked !== null) {
      if (!this.playing || !this.meters.read().playing) return this.asked;
      this.asked = null;
    }
    return this.node ? this.meters.read().position : this.parked;
  }

  /** Output latency in seconds, as the browser reports it. */
  get latencySeconds(): number {
    return this.context ? this.context.baseLatency + (this.context.outputLatency || 0) : 0;
  }

  /** The sample of the piece that is heard at a time of the page's clock, in ms: by the browser's output timestamps. */
  heardAt(moment: number): number {
    const state = this.meters.read();
    const late = this.position - this.latencySeconds * this.sampleRate;
    const stamp = this.playing && this.asked === null ? this.context?.getOutputTimestamp() : undefined;
    if (!stamp?.performanceTime || !stamp.contextTime) return late;
    const put = stamp.contextTime + (moment - stamp.performanceTime) / 1000;
    const heard = (put - state.origin) * this.sampleRate;
    if (Math.abs(heard - late) >= DOUBTED_SECONDS * this.sampleRate) return late;
    // Just after the loop has come round, its end is still to be heard.
    const loop = this.plan?.loop;
    return loop && state.turned && heard < loop.start ? heard + loop.end - loop.start : heard;
  }

  /** Makes the audio thread ready, ahead of the first tap where the browser lets it. */
  prepare(): Promise<void> {
    this.starting ??= this.start().catch((error: unknown) => {
      // The next tap tries again: an output may have been connected.
      this.starting = null;
      throw error instanceof NoAudio ? error : new NoAudio(`${NO_OUTPUT} (${reasonOf(error)})`);
    });
    return this.starting;
  }

  private async resume(): Promise<void> {
    await this.prepare();
    const { context } = this;
    if (!context || (context.state === 'running' && !this.suspended)) return;
    this.suspended = false;
    this.onActivity();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<never>(
      (_resolve, reject) => (timer = setTimeout(() => reject(new NoAudio(NO_OUTPUT)), WAKE_MS)),
    );
    await Promise.race([context.resume(), late]).finally(() => clearTimeout(timer));
  }

  private async start(): Promise<void> {
    const { output } = this;
    this.openedOutput = output;
    const context = new AudioContext({ sampleRate: this.sampleRate, latencyHint: output.latency });
    if (output.sinkId !== '' && canChooseOutput()) {
      // A device that is gone: the system's output takes its place.
      await (context as SinkContext).setSinkId(output.sinkId).catch(() => undefined);
    }
    await context.audioWorklet.addModule('/rt/engine.worklet.js');
    const first: ToEngine[] = [
      {
        type: 'sounds',
        sounds: [...this.sounds.values()].map((sound) => ({ hash: sound.hash, channels: [...sound.channels] })),
      },
      ...(this.plan ? [{ type: 'plan' as const, plan: this.plan }] : []),
      ...[...this.impulses.made].map(([key, impulse]) => ({
        type: 'impulse' as const,
        key,
        impulse: { frames: impulse.frames, stages: [...impulse.stages] },
      })),
      { type: 'locate', to: this.parked },
      { type: 'watch', channel: this.watched },
      { type: 'click', on: this.click },
      ...(this.listening ? [{ type: 'listen' as const, listening: this.listening }] : []),
    ];
    const gestures = makeGestureMemory();
    this.node = new AudioWorkletNode(context, 'zephiro-engine', {
      numberOfInputs: 0,
      numberOfOutputs: 1,
      outputChannelCount: [2],
      processorOptions: { memory: this.memory, scope: this.scope, gestures, first },
    });
    const { port1, port2 } = new MessageChannel();
    this.node.port.postMessage({ type: 'cue', ports: [port1, port2] } satisfies ToEngine, [port1, port2]);
    this.sent = 1;
    this.gestures = new GestureWriter(gestures);
    this.node.port.onmessage = (event: MessageEvent<unknown>) => this.hear(event.data);
    this.monitorSwitch = new MonitorSwitch(context, context.destination, this.monitor);
    this.node.connect(this.monitorSwitch.input);
    this.context = context;
    context.onstatechange = () => this.onActivity();
    this.onActivity();
  }

  /**
   * Restarts with another output or latency, which a browser takes only for a new audio context: tails are lost,
   * playing continues at its position. Of several in quick succession the last is used.
   */
  setOutput(output: OutputChoice): Promise<void> {
    this.output = output;
    this.reopening = this.reopening.catch(() => undefined).then(() => this.reopen());
    return this.reopening;
  }

  private async reopen(): Promise<void> {
    if (!this.starting || this.closed || isSameOutput(this.output, this.openedOutput)) return;
    const { position } = this;
    await this.starting.catch(() => undefined);
    await this.shut();
    this.starting = null;
    this.suspended = false;
    this.parked = position;
    if (this.playing) await this.play(position);
    else await this.prepare();
    if (this.closed) await this.shut();
  }

  private async shut(): Promise<void> {
    const { context, node } = this;
    this.node = null;
    this.gestures = null;
    this.context = null;
    node?.disconnect();
    await context?.close();
  }

  /** Whether the audio thread runs, or is about to: what it does may have to be drawn. */
  get active(): boolean {
    const runs = this.context?.state === 'running' && !this.suspended;
    return runs || performance.now() - this.lastMessageAt < IDLE_MS;
  }

  /** Computing silence takes a fifth of a processor. */
  private suspendIfIdle(): void {
    if (this.playing || this.suspended || performance.now() - this.lastMessageAt < IDLE_MS) return;
    this.suspended = true;
    this.context?.suspend().catch(() => (this.suspended = false));
  }

  private tell(message: ToEngine): void {
    if (this.node) {
      this.sent += 1;
      this.node.port.postMessage(message);
    }
    this.wake();
  }

  /** The audio thread has something to do. */
  private wake(): void {
    this.lastMessageAt = performance.now();
    if (this.suspended) {
      this.suspended = false;
      // Rejected where the output was removed meanwhile; playing reports it.
      this.context?.resume().catch(() => undefined);
    }
    this.onActivity();
  }

  async close(): Promise<void> {
    this.closed = true;
    this.impulses.close();
    await this.shut();
  }
}
