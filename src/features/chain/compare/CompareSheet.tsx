import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { WIDE_WAYS } from '../../../core/piece/wideWays';
import { blockOf } from '../../../core/piece/block';
import { placeBlock } from '../../../core/piece/edits/blocks';
import { dropKept, keepSetting, takeKept } from '../../../core/piece/edits/storedVariants';
import { chainOf, channelName, keptOf } from '../../../core/piece/find';
import { MAX_KEPT } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { NameField } from '../../../ui/NameField';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { PlayLine } from '../../shared/shell/PlayLine';
import { usePiece } from '../../studio/StudioProvider';
import { AlternativeList } from './AlternativeList';
import { useAlternatives, type Alternative } from './useAlternatives';
import { newId } from '../../../data/newId';

const NOW = 'now';

/** Opens a channel's alternatives: settings kept of it, or ways to make it wide. */
export function CompareSheet({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [page, setPage] = useState<'kept' | 'wide' | null>(null);
  const name = channelName(piece, channel);
  return (
    <>
      <Button label={`Compare settings of ${name}`} icon="layers" onPress={() => setPage('kept')}>
        Compare
      </Button>
      <Button label={`Ways to make ${name} wide`} icon="maximize-2" onPress={() => setPage('wide')}>
        Make wide
      </Button>
      <Sheet
        title={page === 'wide' ? `${name}, made wide` : `Settings of ${name}`}
        visible={page !== null}
        onClose={() => setPage(null)}
      >
        <PlayLine says="All are heard as loud as the least loud of them." />
        <ScrollView style={styles.list}>
          {page === 'kept' ? <StoredVariantList channel={channel} /> : null}
          {page === 'wide' ? <Wide channel={channel} onKept={() => setPage(null)} /> : null}
        </ScrollView>
      </Sheet>
    </>
  );
}

function StoredVariantList({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const kept = keptOf(piece, channel);
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const all = useMemo<readonly Alternative[]>(
    () => [
      { id: NOW, name: 'As it is now', purpose: saysChain(chain.length), chain },
      ...kept.map((one) => ({ ...one, purpose: saysChain(one.chain.length) })),
    ],
    [chain, kept],
  );
  const shown = useMemo(
    () => (order ? [...all].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id)) : all),
    [all, order],
  );
  const audition = useAlternatives(channel, shown);
  const { run } = useOpenPiece.getState();
  const shuffle = (): void =>
    setOrder(
      all
        .map(({ id }) => ({ id, at: Math.random() }))
        .sort((a, b) => a.at - b.at)
        .map(({ id }) => id),
    );
  const free =
    ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'].find((letter) => !kept.some((one) => one.name === letter)) ?? 'Another';
  return (
    <View>
      {kept.length < MAX_KEPT && order === null ? (
        <NameField
          key={free}
          label="Name of the setting"
          initial={free}
          action="Keep this"
          onName={(called) => run(keepSetting, { channel, id: newId(), called })}
        />
      ) : null}
      {kept.length === 0 ? (
        <Text variant="bodySmall">
          Keep the chain as it is, change it, keep it again: up to eight settings can be heard in turn.
        </Text>
      ) : (
        <Chip
          role="switch"
          label="Compare blind"
          chosen={order !== null}
          icon={order ? 'eye-off' : 'eye'}
          tone="sea"
          style={styles.blind}
          onPress={() => (order ? setOrder(null) : shuffle())}
        >
          {order ? 'Reveal' : 'Blind'}
        </Chip>
      )}
      <AlternativeList
        alternatives={shown}
        audition={audition}
        current={NOW}
        blind={order !== null}
        keepLabel="Take"
        onKeep={(id) => run(takeKept, { channel, id })}
        onDrop={(id) => run(dropKept, { channel, id })}
      />
    </View>
  );
}

function Wide({ channel, onKept }: { readonly channel: string; readonly onKept: () => void }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const ways = useMemo<readonly Alternative[]>(
    () => [
      { id: NOW, name: 'As it is now', purpose: 'Without any of them.', chain },
      ...WIDE_WAYS.map((way) => ({ ...way, chain: [...chain, ...way.slots(`way-${way.id}`)] })),
    ],
    [chain],
  );
  const audition = useAlternatives(channel, ways);
  const keep = (id: string): void => {
    const way = WIDE_WAYS.find((one) => one.id === id)!;
    const slot = newId();
    const block = blockOf(piece, way.slots('way'), 'way', way.name);
    if (!useOpenPiece.getState().run(placeBlock, { channel, block, at: chain.length, id: slot })) return;
    useView.setState({ channel, slot: `${slot}-0` });
    onKept();
  };
  return (
    <AlternativeList
      alternatives={ways}
      audition={audition}
      current={NOW}
      blind={false}
      keepLabel="Keep"
      onKeep={keep}
    />
  );
}

const saysChain = (effects: number): string =>
  effects === 0 ? 'no effects' : effects === 1 ? 'one effect' : `${effects} effects`;

const styles = StyleSheet.create({
  list: { maxHeight: 560 },
  blind: { alignSelf: 'flex-start', marginBottom: 8 },
});
