import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DataTable } from 'react-native-paper';
import { effectOf } from '../../../core/effects/catalogue';
import { chainOf, contextOf, slotsIn } from '../../../core/piece/find';
import { measureLoads } from '../../../audio/loads';
import { useTokens } from '../../../ui/theme';
import { Text } from '../../../ui/Text';
import { usePiece, useStudio } from '../../studio/StudioProvider';

/** Load of each effect of a channel, as a share of the audio thread's time, measured on this device on request. */
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
  if (slots.length === 0) return <Text variant="bodySmall">No effects, no load.</Text>;
  return (
    <DataTable role="group" aria-label="Load by effect" style={styles.list}>
      {slots.map((slot) => {
        const share = shares.get(slot.id);
        const { name } = effectOf(slot.effect);
        return (
          <DataTable.Row key={slot.id} style={styles.row}>
            <DataTable.Cell style={styles.name}>{name}</DataTable.Cell>
            <View style={[styles.rail, { backgroundColor: tokens.line }]}>
              <View style={[styles.share, { backgroundColor: tokens.ink, width: `${((share ?? 0) / most) * 100}%` }]} />
            </View>
            <DataTable.Cell numeric style={styles.figure}>
              <Text
                variant="titleSmall"
                aria-label={share === undefined ? `${name}, measuring` : `${name} ${(share * 100).toFixed(1)} %`}
              >
                {share === undefined ? '…' : `${(share * 100).toFixed(1)} %`}
              </Text>
            </DataTable.Cell>
          </DataTable.Row>
        );
      })}
      <Text variant="bodySmall">
        Share of the audio thread’s time, on loud sound. An effect that rings no more costs nearly nothing; a print
        costs nothing.
      </Text>
    </DataTable>
  );
}

const styles = StyleSheet.create({
  list: { marginTop: 4 },
  row: { alignItems: 'center', paddingHorizontal: 0, minHeight: 36 },
  name: { flexGrow: 0, flexBasis: 106 },
  rail: { flex: 1, height: 6, borderRadius: 3, overflow: 'hidden' },
  share: { height: 6 },
  figure: { flexGrow: 0, flexBasis: 72 },
});
