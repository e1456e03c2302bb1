import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useTokens } from '../../ui/theme';
import { Text } from '../../ui/Text';

interface BranchGroupProps {
  readonly title: string;
  /** Its input and output settings, in one line. */
  readonly about?: string;
  /** False while the branch is switched off. */
  readonly open?: boolean;
  /** True while the branch does not change the sound. */
  readonly untreated?: boolean;
  /** Shows whether the branch receives sound now. */
  readonly lamp?: ReactNode;
  readonly tools?: ReactNode;
  readonly children: ReactNode;
}

/** A branch of the chain, drawn as a line to the side that returns: a strand or a wet path. */
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
