import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useTokens } from '../../ui/theme';
import { Text } from '../../ui/Text';

interface BranchGroupProps {
  readonly title: string;
  /** What it takes and how it comes back, in one line. */
  readonly about?: string;
  /** False while nothing goes this way. */
  readonly open?: boolean;
  /** True while what comes back is as it went in. */
  readonly untreated?: boolean;
  /** Shows whether sound goes this way now. */
  readonly lamp?: ReactNode;
  readonly tools?: ReactNode;
  readonly children: ReactNode;
}

/** A place where the thread parts: it leaves to the side, holds what is there, and comes back. */
export function BranchGroup({ title, about, open = true, untreated = false, lamp, tools, children }: BranchGroupProps) {
  const tokens = useTokens();
  return (
    <View role="group" aria-label={title} style={styles.parting}>
      <View
        aria-hidden
        style={[styles.way, { borderColor: open ? (untreated ? tokens.sand : tokens.sea) : tokens.line }]}
      />
      <View style={styles.head}>
        {lamp}
        <View style={styles.words}>
          <Text variant="headlineSmall" numberOfLines={1} style={styles.title}>
            {title}
          </Text>
          {about ? (
            <Text variant="bodySmall" numberOfLines={1}>
              {about}
            </Text>
          ) : null}
        </View>
        {tools}
      </View>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  parting: { marginLeft: 19, paddingLeft: 18, paddingBottom: 12, marginTop: -8, marginBottom: 12 },
  way: {
    position: 'absolute',
    left: 0,
    top: 22,
    bottom: 0,
    width: 16,
    borderWidth: 2,
    borderRightWidth: 0,
    borderTopLeftRadius: 14,
    borderBottomLeftRadius: 14,
    pointerEvents: 'none',
  },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  words: { flex: 1, minWidth: 0 },
  title: { fontSize: 17, lineHeight: 22 },
});
