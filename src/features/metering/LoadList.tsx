import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { chainOf, contextOf, slotsIn } from '../../core/piece/find';
import { measureLoads } from '../../audio/loads';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';

/** What each effect of a channel costs of the time the audio thread has, measured on this device when asked. */
export function LoadList({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const slots = useMemo(() => slotsIn(chainOf(piece, channel)), [piece, channel]);
  const [shares, setShares] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(
    () =>
      measureLoads(slots, contextOf(piece), [...studio.sounds.values()], (slot, share) =>
        setShares((before) => new Map([...before, [slot, share]])),
      ),
    [slots, piece, studio],
  );
  const most = Math.max(0.05, ...shares.values());
  if (slots.length === 0) return <Words kind="small">No effects, no load.</Words>;
  return (
    <View role="group" aria-label="Load by effect" style={styles.list}>
      {slots.map((slot) => {
        const share = shares.get(slot.id);
        const { name } = effectOf(slot.effect);
        return (
          <View key={slot.id} style={styles.row}>
            <Words style={styles.name} numberOfLines={1}>
              {name}
            </Words>
            <View style={[styles.rail, { backgroundColor: tokens.line }]}>
              <View style={[styles.share, { backgroundColor: tokens.ink, width: `${((share ?? 0) / most) * 100}%` }]} />
            </View>
            <Words
              kind="strong"
              aria-label={share === undefined ? `${name}, measuring` : `${name} ${(share * 100).toFixed(1)} %`}
              style={styles.figure}
            >
              {share === undefined ? '…' : `${(share * 100).toFixed(1)} %`}
            </Words>
          </View>
        );
      })}
      <Words kind="small">
        Share of the audio thread’s time, on loud sound. An effect that rings no more costs nearly nothing; a print
        costs nothing.
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8, marginTop: 4 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 24 },
  name: { width: 96 },
  rail: { flex: 1, height: 6, borderRadius: 3, overflow: 'hidden' },
  share: { height: 6 },
  figure: { width: 62, textAlign: 'right' },
});
