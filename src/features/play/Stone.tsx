import { useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { effectOf } from '../../core/effects/catalogue';
import { noteBeats } from '../../core/music/noteValue';
import { secondsPerBeat } from '../../core/music/tempo';
import { resolveNumber, syncedNote } from '../../core/params/resolve';
import { channelName, contextOf, findSlot } from '../../core/piece/find';
import { MAIN, type EffectTarget, type Piece, type Slot } from '../../core/piece/piece';
import { useRecording } from '../../data/recording';
import { elementOf, useFrame } from '../../ui/frame';
import { HoldArea } from '../../ui/HoldArea';
import { LiveText } from '../../ui/LiveText';
import { useReducedMotion } from '../../ui/motion';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { HoldPicture } from './HoldPicture';
import { useHoldPad } from '../studio/useHoldPad';
import type { HoldPhase } from './holdPhase';
import { usePlayControl, type PlayControl } from '../shared/commands/playKeys';
import { usePlayState } from './playState';
import { useHoldPresets } from './presets';
import { outlinePath, stoneOutline } from './stoneShape';
import { useNoteExpression } from './useNoteExpression';
import { useHoldPhase } from './useHoldPhase';

interface StoneProps {
  /** The switch of the hold; the same object while it is the same. */
  readonly target: EffectTarget;
  readonly index: number;
}

/** Pixels that a finger goes aside on a stone to step to the next preset. */
const SWIPE_PX = 44;

/** A hold as a stone: held for as long as it is pressed; a swipe aside while it is held steps its presets. */
export function Stone({ target, index }: StoneProps) {
  const piece = usePiece();
  const slot = findSlot(piece, target.channel, target.effect);
  return slot ? <HeldStone target={target} index={index} slot={slot} /> : null;
}

function HeldStone({ target, index, slot }: StoneProps & { readonly slot: Slot }) {
  const piece = usePiece();
  const tokens = useTokens();
  const wide = useWide();
  const still = useReducedMotion();
  const playing = useRecording((state) => state.playing);
  const { studio } = useStudio();
  const view = useRef<View>(null);
  const pad = useHoldPad(target);
  const { phase, tracker } = useHoldPhase(target);
  const definition = effectOf(slot.effect);
  const presets = useHoldPresets(target);
  const preset = presets.now?.name ?? 'Own setting';
  const expression = useNoteExpression(target);
  const begin = (velocity?: number): void => {
    usePlayState.getState().set({ hold: slot.id });
    if (velocity !== undefined) expression.noteOn(velocity);
    pad.begin();
  };
  const end = (): void => {
    pad.end();
    expression.letGo();
  };
  const key = usePlayControl(`stone${index}` satisfies PlayControl, { begin, end, aftertouch: expression.aftertouch });
  useSwipe(view, presets.step);
  const channel = target.channel === MAIN ? '' : ` on ${channelName(piece, target.channel)}`;
  const sounding = phase === 'sounding';
  /** The picture shows the input, of which there is none while nothing plays. */
  const showsPicture = sounding && playing && !still;
  const turns = turnBeats(piece, slot);
  const ink = sounding ? tokens.paper : tokens.ink;
  return (
    <HoldArea
      area={view}
      label={`Hold ${definition.name}${channel}: ${preset}`}
      description={definition.purpose}
      down={pad.down}
      onBegin={() => begin()}
      onEnd={pad.end}
      style={styles.stone}
    >
      <Outline index={index} phase={phase} left={() => tracker.left(studio.beat)} />
      {still ? null : <HoldPicture slot={slot.id} sounding={showsPicture} />}
      {showsPicture ? null : <Glyph d={definition.glyph ?? ''} color={sounding ? tokens.paper : tokens.sea} />}
      <View style={styles.title}>
        <Text variant="titleSmall" style={[styles.name, { color: ink }]} numberOfLines={1}>
          {definition.name}
        </Text>
        {sounding && turns > 0 ? (
          <LiveText
            read={() => String(turnAt(turns, studio.beat - tracker.began))}
            strong
            style={[styles.turn, { color: ink }]}
          />
        ) : null}
      </View>
      <Text style={[styles.preset, { color: ink }]} numberOfLines={1}>
        {preset}
      </Text>
      {wide && key ? (
        <Text style={[styles.key, { color: sounding ? ink : tokens.mute }]} aria-hidden>
          {key}
        </Text>
      ) : null}
    </HoldArea>
  );
}

/** The still drawing of a kind of hold. */
function Glyph({ d, color }: { readonly d: string; readonly color: string }) {
  return (
    <View style={styles.glyph}>
      <Svg width={48} height={20} viewBox="0 0 48 20" aria-hidden>
        <Path d={d} stroke={color} strokeWidth={2.4} strokeLinecap="round" strokeLinejoin="round" fill="none" />
      </Svg>
    </View>
  );
}

/** Beats of a turn of a hold that repeats a slice; 0 for other holds. */
function turnBeats(piece: Piece, slot: Slot): number {
  const { params, headline } = effectOf(slot.effect);
  const param = params[headline[0]!];
  if (param?.kind !== 'number' || param.sync !== 'time') return 0;
  const value = slot.values[headline[0]!]!;
  const note = syncedNote(value);
  return note
    ? noteBeats(note, piece.tempo.beatsPerBar)
    : resolveNumber(param, value, contextOf(piece)) / 1000 / secondsPerBeat(piece.tempo);
}

/** Which turn a hold is in so many beats after its start, from 1. */
const turnAt = (turns: number, beats: number): number => Math.floor(Math.max(0, beats) / turns + 1e-6) + 1;

interface OutlineProps {
  readonly index: number;
  readonly phase: HoldPhase;
  readonly left: () => number;
}

/** The stone's form; circled by what is left of its wait, sending rings while it sounds. */
function Outline({ index, phase, left }: OutlineProps) {
  const tokens = useTokens();
  const still = useReducedMotion();
  const points = useMemo(() => stoneOutline(index), [index]);
  const d = outlinePath(points);
  const fill = phase === 'sounding' ? tokens.seaDeep : phase === 'waiting' ? tokens.seaSoft : tokens.card;
  return (
    <View style={styles.outline} aria-hidden>
      {phase === 'sounding' && !still ? <Rings d={d} color={tokens.sea} /> : null}
      <Svg width="100%" height="100%" style={StyleSheet.absoluteFill} viewBox="0 0 100 100" preserveAspectRatio="none">
        <Path
          d={d}
          fill={fill}
          stroke={phase === 'asleep' ? tokens.line : tokens.sea}
          strokeWidth={phase === 'sounding' && still ? 5 : 1.5}
          vectorEffect="non-scaling-stroke"
        />
      </Svg>
      {phase === 'waiting' ? <Wait points={points} color={tokens.sea} left={left} /> : null}
    </View>
  );
}

interface WaitProps {
  readonly points: ReturnType<typeof stoneOutline>;
  readonly color: string;
  readonly left: () => number;
}

function Wait({ points, color, left }: WaitProps) {
  const [path, setPath] = useState('');
  useFrame(() => {
    setPath(outlinePath(points, left()));
    return true;
  });
  return (
    <Svg width="100%" height="100%" style={StyleSheet.absoluteFill} viewBox="0 0 100 100" preserveAspectRatio="none">
      <Path
        d={path}
        fill="none"
        stroke={color}
        strokeWidth={5}
        strokeLinecap="round"
        vectorEffect="non-scaling-stroke"
      />
    </Svg>
  );
}

const RING_MS = 900;

function Rings({ d, color }: { readonly d: string; readonly color: string }) {
  return (
    <>
      <Ring d={d} color={color} delay={0} />
      <Ring d={d} color={color} delay={0.5} />
    </>
  );
}

/** @param delay of its beginning, as a share of a ring's life */
function Ring({ d, color, delay }: { readonly d: string; readonly color: string; readonly delay: number }) {
  const view = useRef<View>(null);
  useFrame(() => {
    const element = elementOf(view.current);
    if (!element) return false;
    const share = (performance.now() / RING_MS + delay) % 1;
    element.style.transform = `scale(${1 + 0.16 * share})`;
    element.style.opacity = String(0.7 * (1 - share));
    return true;
  });
  return (
    <View ref={view} style={StyleSheet.absoluteFill}>
      <Svg width="100%" height="100%" style={StyleSheet.absoluteFill} viewBox="0 0 100 100" preserveAspectRatio="none">
        <Path d={d} fill="none" stroke={color} strokeWidth={1.5} vectorEffect="non-scaling-stroke" />
      </Svg>
    </View>
  );
}

/** Reports sideways swipes, one for each `SWIPE_PX`. */
function useSwipe(view: React.RefObject<View | null>, onSwipe: (direction: 1 | -1) => void): void {
  const latest = useRef(onSwipe);
  useEffect(() => {
    latest.current = onSwipe;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    const listening = new AbortController();
    const from = new Map<number, number>();
    const on = { signal: listening.signal };
    element.addEventListener('pointerdown', (event) => from.set(event.pointerId, event.clientX), on);
    element.addEventListener(
      'pointermove',
      (event) => {
        const start = from.get(event.pointerId);
        if (start === undefined || Math.abs(event.clientX - start) < SWIPE_PX) return;
        from.set(event.pointerId, event.clientX);
        latest.current(event.clientX > start ? 1 : -1);
      },
      on,
    );
    for (const name of ['pointerup', 'pointercancel'] as const)
      element.addEventListener(name, (event) => from.delete(event.pointerId), on);
    return () => listening.abort();
  }, [view]);
}

const styles = StyleSheet.create({
  stone: { flex: 1, minHeight: 72, minWidth: 92 },
  outline: { ...StyleSheet.absoluteFill, pointerEvents: 'none' },
  glyph: { width: 48, height: 20 },
  name: { fontSize: 15, lineHeight: 19 },
  preset: { fontSize: 15, lineHeight: 18, maxWidth: '84%' },
  title: { flexDirection: 'row', alignItems: 'center', gap: 5 },
  turn: { minWidth: 20 },
  key: { position: 'absolute', right: '17%', top: '13%', fontSize: 15 },
});
