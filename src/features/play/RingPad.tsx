import { playGrid } from '../../core/piece/playGrid';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { setSend } from '../../core/piece/edits/sends';
import { findChannel, targetKey } from '../../core/piece/find';
import type { Target } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { HoldArea } from '../../ui/HoldArea';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { usePlayed } from '../studio/played';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { StrandLamp } from '../shared/strands/StrandLamp';
import type { PlayedPad } from './pads';
import { usePlayControl } from '../shared/commands/playKeys';

interface RingProps {
  readonly label: string;
  readonly name: string;
  readonly index: number;
  readonly down: boolean;
  readonly onBegin: () => void;
  readonly onEnd?: () => void;
  /** What it shows beside its name. */
  readonly lamp?: ReactNode;
}

/** A ring in the middle of Play: played by a finger or by its key. */
export function Ring({ label, name, index, down, onBegin, onEnd, lamp }: RingProps) {
  const tokens = useTokens();
  const wide = useWide();
  const key = usePlayControl(`pad${index}`, { begin: () => onBegin(), end: () => onEnd?.() });
  return (
    <HoldArea
      label={label}
      down={down}
      onBegin={onBegin}
      onEnd={onEnd}
      style={[
        styles.ring,
        !wide && styles.narrow,
        { borderColor: tokens.coral, backgroundColor: down ? tokens.coralDeep : 'transparent' },
      ]}
    >
      {down ? <View style={[styles.inner, { borderColor: tokens.paper }]} /> : null}
      <Text variant="titleSmall" numberOfLines={2} style={[styles.name, { color: down ? tokens.paper : tokens.ink }]}>
        {name}
      </Text>
      {lamp}
      {wide && key ? (
        <Text style={[styles.key, { color: tokens.mute }]} aria-hidden>
          {key}
        </Text>
      ) : null}
    </HoldArea>
  );
}

interface RingPadProps {
  readonly pad: PlayedPad;
  readonly index: number;
  readonly grid: string;
  /** A tap plays it, another ends it. */
  readonly latches: boolean;
}

/** A ring that plays a parameter: held, or from tap to tap. */
export function RingPad({ pad: { target, label, name, value, strand }, index, grid, latches }: RingPadProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  // Several pads may play one parameter, each to a value of its own.
  const isDown = (): boolean => usePlayed.getState().now[targetKey(target)]?.value === value;
  const down = usePlayed((state) => state.now[targetKey(target)]?.value === value);
  const gridBeats = (): number => playGrid(piece, grid, studio.beat);
  const begin = (): void => {
    if (latches && down) studio.live.end(target, gridBeats());
    else if (hasSend(target)) studio.live.begin(target, value, gridBeats());
  };
  /** A send that is not there yet is made, shut. */
  const hasSend = (one: Target): boolean => {
    if (one.kind !== 'send') return true;
    const { channel, to } = one;
    if (findChannel(piece, channel)?.sends.some((send) => send.to === to)) return true;
    return useOpenPiece.getState().run(setSend, { channel, to, level: 0 });
  };
  return (
    <Ring
      label={label}
      name={name}
      index={index}
      down={down}
      onBegin={begin}
      lamp={strand ? <StrandLamp slot={strand.slot} place={strand.place} style={styles.lamp} /> : null}
      onEnd={() => {
        if (!latches && isDown()) studio.live.end(target, gridBeats());
      }}
    />
  );
}

const SIDE = 76;
/** Four of them and their switch have to fit between the field and the foot of a phone. */
const SIDE_NARROW = 66;

const styles = StyleSheet.create({
  ring: {
    width: SIDE,
    height: SIDE,
    borderRadius: SIDE / 2,
    borderWidth: 2,
  },
  narrow: { width: SIDE_NARROW, height: SIDE_NARROW },
  inner: { position: 'absolute', top: 5, bottom: 5, left: 5, right: 5, borderRadius: SIDE / 2, borderWidth: 1.5 },
  name: { fontSize: 15, lineHeight: 17, textAlign: 'center', paddingHorizontal: 6 },
  lamp: { position: 'absolute', top: 8, marginRight: 0 },
  key: { position: 'absolute', right: -6, top: -4, fontSize: 15 },
});
