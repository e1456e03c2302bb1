import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import type { SoundAmount } from '../../../core/api/schemas';
import { clearStorage, readStorage } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { Button } from '../../../ui/Button';
import { sizeText } from '../../../ui/sizeText';
import { Text } from '../../../ui/Text';

const KEY = ['storage'];

const amountText = ({ count, bytes }: SoundAmount): string =>
  `${count} ${count === 1 ? 'sound' : 'sounds'}, ${sizeText(bytes)}`;

/** What the sounds on the server take, and what of it may be cleared. */
export function StorageSettings() {
  const queries = useQueryClient();
  const use = useQuery({ queryKey: KEY, queryFn: readStorage, staleTime: 0 });
  const clear = useMutation({
    mutationFn: clearStorage,
    onSuccess: async (removed) => {
      useOpenPiece.getState().say(`Cleared: ${amountText(removed)}. Every piece is as it was.`);
      await queries.invalidateQueries({ queryKey: KEY });
    },
    onError: (error) => useOpenPiece.getState().say(error.message),
  });
  return (
    <View role="group" aria-label="Storage" style={styles.block}>
      <Text variant="headlineSmall">Storage</Text>
      {use.isPending ? <Text variant="bodySmall">Counting …</Text> : null}
      {use.isError ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {use.error.message}
        </Text>
      ) : null}
      {use.data ? (
        <>
          <Text>{`On the server: ${amountText(use.data.sounds)}; ${sizeText(use.data.freeBytes)} free.`}</Text>
          <Text variant="bodySmall">
            {use.data.unused.count === 0
              ? 'All of them are used: by a piece, its history, the bin or a block; or they came within the last week.'
              : `${amountText(use.data.unused)} are used by no piece, no history, nothing in the bin and no block.`}
          </Text>
          <Button
            label="Clear unused sounds"
            icon="trash-2"
            disabled={use.data.unused.count === 0 || clear.isPending}
            style={styles.clear}
            onPress={() => clear.mutate()}
          >
            Clear them
          </Button>
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ block: { gap: 6, marginTop: 18 }, clear: { alignSelf: 'flex-start' } });
