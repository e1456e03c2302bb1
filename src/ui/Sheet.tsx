import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { Modal, Pressable, StyleSheet, View } from 'react-native';
import { elementOf } from './frame';
import { IconButton } from './IconButton';
import { restoreFocus } from './restoreFocus';
import { Text } from './Text';
import { useTokens, useWide } from './theme';

interface SheetProps {
  readonly title: string;
  readonly visible: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/**
 * A modal sheet: from the bottom on a phone, in the middle on a wide screen. A tap beside it or Escape closes the
 * topmost; the focus returns to its previous element.
 */
export function Sheet({ title, visible, onClose, children }: SheetProps) {
  const tokens = useTokens();
  const wide = useWide();
  const leaf = useRef<View>(null);
  useEffect(() => {
    // A sheet over a sheet: the library leaves `aria-modal` on the lower one, where it has taken the role away. The
    // sheet itself has it.
    if (visible) elementOf(leaf.current)?.parentElement?.closest('[aria-modal]')?.removeAttribute('aria-modal');
  }, [visible]);
  useEffect(() => {
    if (!visible) return undefined;
    // Once the sheet is removed.
    return () => void requestAnimationFrame(restoreFocus);
  }, [visible]);
  // Before fields, whose keys the library lets go no further; its own listener is not there yet when a sheet is new.
  useLayoutEffect(() => {
    if (!visible) return undefined;
    const press = (event: KeyboardEvent): void => {
      const uppermost = [...document.querySelectorAll('[role=dialog]')].at(-1);
      if (event.key !== 'Escape' || event.defaultPrevented || uppermost !== elementOf(leaf.current)) return;
      event.preventDefault();
      onClose();
    };
    document.addEventListener('keydown', press, true);
    return () => document.removeEventListener('keydown', press, true);
  }, [visible, onClose]);
  return (
    <Modal transparent visible={visible} animationType="none">
      <View style={[styles.over, wide && styles.overWide]}>
        <Pressable
          aria-hidden
          tabIndex={-1}
          onPress={onClose}
          style={[StyleSheet.absoluteFill, { backgroundColor: '#0A1218', opacity: 0.45 }]}
        />
        <View
          ref={leaf}
          role="dialog"
          aria-modal
          aria-label={title}
          style={[styles.sheet, wide && styles.sheetWide, { backgroundColor: tokens.card, borderColor: tokens.line }]}
        >
          <View style={styles.head}>
            <Text variant="titleLarge" role="heading" aria-level={2} style={styles.title}>
              {title}
            </Text>
            <IconButton icon="x" label="Close" onPress={onClose} />
          </View>
          {children}
        </View>
      </View>
    </Modal>
  );
}

const styles = StyleSheet.create({
  over: { flex: 1, justifyContent: 'flex-end' },
  overWide: { justifyContent: 'center', alignItems: 'center' },
  sheet: {
    borderTopLeftRadius: 18,
    borderTopRightRadius: 18,
    borderWidth: 1,
    paddingHorizontal: 18,
    paddingBottom: 18,
    maxHeight: '88%',
  },
  sheetWide: { borderRadius: 18, width: 480 },
  head: { flexDirection: 'row', alignItems: 'center', paddingVertical: 8 },
  title: { flex: 1 },
});
