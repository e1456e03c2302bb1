import { channelOfTarget, effectOfTarget } from '../../../core/piece/find';
import { StyleSheet, View } from 'react-native';
import { useTokens } from '../../../ui/theme';
import { Text } from '../../../ui/Text';
import { usePiece } from '../../studio/StudioProvider';
import { isHold } from './kinds';
import { LinkCard } from './LinkCard';
import { NewLink } from './NewLink';

interface LinkListProps {
  readonly channel: string;
  /** Shows the links of one effect; of the whole channel when left out. */
  readonly effect?: string;
}

/** The links of a channel or effect, and a way to add more. */
export function LinkList({ channel, effect }: LinkListProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const links = piece.links.filter(
    ({ target }) => channelOfTarget(target) === channel && (effect === undefined || effectOfTarget(target) === effect),
  );
  return (
    <View style={styles.list}>
      {links.length === 0 ? (
        <View style={[styles.empty, { borderColor: tokens.line }]}>
          <Text variant="headlineSmall" tone="coralInk">
            Nothing turns by itself yet
          </Text>
          <Text variant="bodySmall" style={styles.emptyText}>
            {effect !== undefined && isHold(piece, channel, effect)
              ? 'A run moves a figure step by step from the moment the hold begins; an LFO or a drift turns it all the time.'
              : 'A link lets an LFO, a row of steps or a drift turn a rail around where it stands.'}
          </Text>
        </View>
      ) : null}
      {links.map((link) => (
        <LinkCard key={link.id} link={link} />
      ))}
      <NewLink channel={channel} effect={effect} />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 12, paddingVertical: 6 },
  empty: { borderWidth: 1, borderStyle: 'dashed', borderRadius: 16, padding: 20, gap: 6, alignItems: 'center' },
  emptyText: { textAlign: 'center', maxWidth: 420 },
});
