import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { copyEffect, duplicateEffect, moveEffect, removeEffect } from '../../core/piece/edits/chain';
import { channelIds, channelName } from '../../core/piece/find';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap, type IconName } from '../../ui/Tap';
import { usePiece } from '../studio/StudioProvider';
import { EffectChoices } from './EffectChoices';

interface CardMenuProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly index: number;
  readonly count: number;
}

type Page = 'menu' | 'replace' | 'copy';

/** What else can be done with an effect of the chain. */
export function CardMenu({ channel, slot, index, count }: CardMenuProps) {
  const piece = usePiece();
  const [page, setPage] = useState<Page | null>(null);
  const { name } = effectOf(slot.effect);
  const { run } = useOpenPiece.getState();
  const where = { channel, slot: slot.id };
  const close = (): void => setPage(null);
  const act = (what: () => void) => (): void => {
    what();
    close();
  };
  const item = (icon: IconName, text: string, onPress: () => void) => <Tap key={text} plain icon={icon} text={text} label={`${text}: ${name}`} onPress={onPress} style={styles.item} />;
  const titles: Record<Page, string> = { menu: name, replace: `Instead of ${name}`, copy: `Copy ${name} to` };
  return (
    <>
      <Tap plain icon="more-horizontal" tone="mute" label={`More for ${name}`} onPress={() => setPage('menu')} />
      <Sheet title={titles[page ?? 'menu']} visible={page !== null} onClose={close}>
        {page === 'menu' ? (
          <>
            {index > 0 ? item('arrow-up', 'Move up', act(() => run(moveEffect, { ...where, to: index - 1 }))) : null}
            {index < count - 1 ? item('arrow-down', 'Move down', act(() => run(moveEffect, { ...where, to: index + 1 }))) : null}
            {item('repeat', 'Replace', () => setPage('replace'))}
            {item('copy', 'Duplicate', act(() => run(duplicateEffect, { ...where, id: crypto.randomUUID() })))}
            {item('corner-up-right', 'Copy to a channel', () => setPage('copy'))}
            {item('trash-2', 'Remove', act(() => run(removeEffect, where)))}
          </>
        ) : null}
        {page === 'replace' ? (
          <ScrollView style={styles.list}><EffectChoices channel={channel} at={index} replaces={slot.id} onAdded={close} /></ScrollView>
        ) : null}
        {page === 'copy' ? (
          <ScrollView style={styles.list}>
            {channelIds(piece).filter((id) => id !== channel).map((id) => (
              <Tap key={id} plain text={channelName(piece, id)} label={`Copy to ${channelName(piece, id)}`} onPress={act(() => run(copyEffect, { ...where, to: id, id: crypto.randomUUID() }))} style={styles.item} />
            ))}
          </ScrollView>
        ) : null}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  item: { alignItems: 'flex-start', paddingHorizontal: 4 },
  list: { maxHeight: 560 },
});
