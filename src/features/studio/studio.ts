import { withChain } from '../../core/engine/compare';
import { compilePlan } from '../../core/engine/compilePlan';
import { clipOrder } from '../../core/engine/print';
import { beatsToSamples, samplesToBeats } from '../../core/music/tempo';
import type { ParamValue } from '../../core/params/param';
import { paramPosition, toEngineNumber } from '../../core/params/resolve';
import { setEffectOn, setParams } from '../../core/piece/edits/chain';
import { setChannelParam, setSwitch, setTempo } from '../../core/piece/edits/channels';
import { setModulator } from '../../core/piece/edits/links';
import { setSend } from '../../core/piece/edits/sends';
import { channelOfTarget, contextOf, effectOfTarget, paramOf, sameTarget, soundsUsed } from '../../core/piece/find';
import { tempoOf } from '../../core/piece/tempoOf';
import { ON_PARAM, type Piece, type EffectTarget, type PrintOrder, type Target } from '../../core/piece/piece';
import { Player, type OutputChoice } from '../../audio/player';
import { SoundLibrary, type LoadedSound } from '../../audio/soundLibrary';
import { useOpenPiece } from '../../data/openPiece';
import { useAudition } from '../../data/audition';
import { usePreferences } from '../../data/preferences';
import { useRecording } from '../../data/recording';
import { useView } from '../../data/view';
import { requestFrames } from '../../ui/frame';
import { LivePlay } from './livePlay';
import { Morph } from './morph';
import { MoveRecorder } from './moveRecorder';
import { valueIndex } from './target';
import { reasonOf } from '../../core/reasonOf';

function outputChoice(): OutputChoice {
  const { output, latency } = usePreferences.getState();
  return { sinkId: output.id, latency };
}

/**
 * Connects the open piece to the player: every change becomes a plan, every touch a gesture; recording is done by the
 * recorder.
 */
export class Studio {
  readonly player: Player;
  readonly sounds = new Map<string, LoadedSound>();
  /** Called when a sound was loaded or failed. */
  onSounds: (missing: ReadonlyMap<string, string>) => void = () => undefined;
  private readonly library: SoundLibrary;
  private readonly missing = new Map<string, string>();
  private readonly loading = new Set<Promise<void>>();
  /** Goes to snapshots. */
  readonly morph: Morph;
  /** What hands play: holds, throws, fields. */
  readonly live: LivePlay;
  private readonly recorder: MoveRecorder;
  private readonly stopWatching: () => void;
  private readonly stopListening: () => void;
  private readonly stopChoosing: () => void;

  constructor(piece: Piece) {
    this.player = new Player(piece.sampleRate, outputChoice());
    this.player.onActivity = requestFrames;
    this.player.setMonitor(useAudition.getState().monitor);
    this.recorder = new MoveRecorder(this.player);
    this.morph = new Morph(this, this.player);
    this.live = new LivePlay(this.player, this.recorder, (target) => this.note(target));
    this.library = new SoundLibrary(piece.sampleRate);
    this.take(piece);
    this.stopWatching = useOpenPiece.subscribe((now, before) => {
      if (now.piece && now.piece !== before.piece && now.piece.id === piece.id)
        this.change(before.piece ?? now.piece, now.piece);
    });
    this.player.setClick(usePreferences.getState().click);
    this.stopChoosing = usePreferences.subscribe(({ click }, before) => {
      if (click !== before.click) this.player.setClick(click);
      this.player.setOutput(outputChoice()).catch((error: unknown) => {
        this.stop();
        useOpenPiece.getState().say(reasonOf(error));
      });
    });
    this.stopListening = useAudition.subscribe((now, before) => {
      if (now.audition !== before.audition) this.sendPlan(this.piece);
      if (now.monitor !== before.monitor) this.player.setMonitor(now.monitor);
      if (
        now.comparing !== before.comparing ||
        now.metered !== before.metered ||
        now.hear !== before.hear ||
        now.matched !== before.matched
      )
        this.listen();
    });
  }

  /** Takes an edit. Where it changes the time of the piece, the place stays at its beat. */
  private change(before: Piece, piece: Piece): void {
    const { position } = this.player;
    const beat = samplesToBeats(position, tempoOf(before), piece.sampleRate);
    const sample = beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
    this.take(piece);
    if (Math.abs(sample - position) > 1) this.player.locate(sample);
  }

  private take(piece: Piece): void {
    this.sendPlan(piece);
    for (const hash of soundsUsed(piece)) if (!this.sounds.has(hash)) this.loading.add(this.fetch(hash));
  }

  /** The piece, or the one with what is auditioned. */
  private sendPlan(piece: Piece): void {
    const { audition } = useAudition.getState();
    this.player.setPlan(
      compilePlan(audition ? withChain(piece, audition.channel, audition.chain, audition.gainDb) : piece),
    );
  }

  private async fetch(hash: string): Promise<void> {
    try {
      const sound = await this.library.load(hash);
      this.sounds.set(hash, sound);
      this.missing.delete(hash);
      this.player.addSound(sound);
    } catch (error) {
      this.missing.set(hash, reasonOf(error));
    }
    this.onSounds(this.missing);
  }

  /** Resolves when every requested sound was loaded or failed. */
  async soundsLoaded(): Promise<void> {
    await Promise.all(this.loading);
  }

  /** Requests every failed sound again. */
  retryMissing(): void {
    for (const hash of this.missing.keys()) void this.fetch(hash);
  }

  private get piece(): Piece {
    return useOpenPiece.getState().piece!;
  }

  /** Position in beats that is being computed. */
  get beat(): number {
    const { piece } = this;
    return samplesToBeats(this.player.position, tempoOf(piece), piece.sampleRate);
  }

  /** Plays from the playhead. Where the browser gives no sound, that is reported and nothing else happens. */
  async play(): Promise<void> {
    const { piece, player } = this;
    const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
    const end = at(piece.lengthBeats);
    // Before a loop playing would lead into it: what is wanted is the loop.
    const loopStart = piece.loop.on ? at(piece.loop.start) : 0;
    try {
      await player.play(
        player.position >= end ? 0 : Math.max(player.position, loopStart),
        usePreferences.getState().countInBars,
      );
    } catch (error) {
      useOpenPiece.getState().say(reasonOf(error));
      return;
    }
    useRecording.setState({ playing: true });
    this.recorder.begin();
  }

  stop(): void {
    this.morph.finish();
    this.live.stop();
    this.recorder.stop();
    this.player.stop();
    useRecording.setState({ playing: false });
  }

  toggle(): void {
    if (useRecording.getState().playing) this.stop();
    else void this.play();
  }

  locate(beat: number): void {
    const { piece } = this;
    this.player.locate(beatsToSamples(Math.max(0, beat), tempoOf(piece), piece.sampleRate));
  }

  /** Once a frame: at the end of the piece playing stops by itself and goes back to the start. */
  watch(): void {
    const { piece } = this;
    if (!useRecording.getState().playing) return;
    this.recorder.follow();
    this.morph.follow();
    if (piece.loop.on) return;
    if (this.beat >= piece.lengthBeats) {
      this.stop();
      this.player.locate(0);
    }
  }

  /**
   * What is heard for comparing: all of the piece untreated while that is held, else the open effect as chosen.
   */
  private listen(): void {
    const { comparing, metered, hear, matched } = useAudition.getState();
    if (comparing) this.player.listen({ channel: null, slot: null, hear: 'dry', matched: false });
    else if (metered) this.player.listen({ ...metered, hear, matched });
    else this.player.listen({ channel: null, slot: null, hear: 'mix', matched: false });
  }

  /** Remembers the rail that was touched last. */
  private note(target: Target): void {
    const { touched } = useView.getState();
    if (!touched || !sameTarget(touched, target)) useView.setState({ touched: target });
  }

  /** A touch of a rail: heard at once; recorded when armed and playing. */
  touch(target: Target, value: ParamValue): void {
    const { piece } = this;
    this.note(target);
    const param = paramOf(piece, target);
    if (!param) return;
    const to = toEngineNumber(param, value, contextOf(piece));
    this.player.gesture({
      kind: 'hold',
      channel: channelOfTarget(target),
      slot: effectOfTarget(target),
      value: valueIndex(piece, target),
      to,
      atSample: 0,
    });
    if (this.recorder.on(channelOfTarget(target))) this.recorder.read(target, paramPosition(param, to));
  }

  /** A touch ended. @param value the last one, which becomes the base value unless it was recorded as a move */
  release(target: Target, value: ParamValue): void {
    const param = paramOf(this.piece, target);
    this.note(target);
    if (param && this.recorder.on(channelOfTarget(target))) {
      this.touch(target, value);
      if (this.recorder.letGo(target)) return;
    } else this.setBase(target, value);
    this.player.gesture({
      kind: 'release',
      channel: channelOfTarget(target),
      slot: effectOfTarget(target),
      value: valueIndex(this.piece, target),
      to: 0,
      atSample: 0,
    });
  }

  /**
   * Touches of several parameters of one effect ended together: one edit, so one undo, unless they are recorded as
   * moves.
   */
  releaseTogether(channel: string, effect: string, values: Readonly<Record<string, ParamValue>>): void {
    const targets = Object.keys(values).map((param): EffectTarget => ({ kind: 'effect', channel, effect, param }));
    if (this.recorder.on(channel)) {
      for (const target of targets) this.release(target, values[target.param]!);
      return;
    }
    useOpenPiece.getState().run(setParams, { channel, slot: effect, values });
    for (const target of targets)
      this.player.gesture({
        kind: 'release',
        channel,
        slot: effect,
        value: valueIndex(this.piece, target),
        to: 0,
        atSample: 0,
      });
  }

  private setBase(target: Target, value: ParamValue): void {
    const { run } = useOpenPiece.getState();
    switch (target.kind) {
      case 'effect': {
        const { channel, effect: slot, param } = target;
        if (param === ON_PARAM) run(setEffectOn, { channel, slot, on: value === true });
        else run(setParams, { channel, slot, values: { [param]: value } });
        return;
      }
      case 'channel': {
        const { channel, param } = target;
        if (typeof value === 'boolean') run(setSwitch, { track: channel, which: 'mute', on: value });
        else if (typeof value === 'number')
          run(setChannelParam, { channel, param: param === 'pan' ? 'pan' : 'gain', value });
        return;
      }
      case 'send':
        if (typeof value === 'number') run(setSend, { channel: target.channel, to: target.to, level: value });
        return;
      case 'macro':
        if (typeof value === 'number') run(setModulator, { modulator: target.macro, change: { level: value } });
        return;
      case 'awaited':
        return;
      case 'tempo':
        if (typeof value === 'number') run(setTempo, { bpm: value });
    }
  }

  clipPrint(clip: string, part: PrintOrder['part'], tailBars: number | null): PrintOrder | null {
    return clipOrder(this.piece, clip, part, tailBars);
  }

  close(): void {
    this.stopWatching();
    this.stopListening();
    this.stopChoosing();
    this.library.close();
    void this.player.close();
  }
}
