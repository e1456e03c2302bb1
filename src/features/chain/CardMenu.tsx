import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { duplicateEffect, moveEffect, removeEffect } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { type CardPage, useView } from '../../data/view';
import { Sheet } from '../../ui/Sheet';
import { ListItem } from '../../ui/ListItem';
import { IconButton } from '../../ui/IconButton';
import type { IconName } from '../../ui/icon';
import { SaveBlock } from '../shared/blocks/SaveBlock';
import { EffectChoices } from '../shared/channels/EffectChoices';
import { newId } from '../../data/newId';
import { CopyToChannels } from './CopyToChannels';

interface CardMenuProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly index: number;
  readonly count: number;
}

/** What else can be done with an effect of the chain. */
export function CardMenu({ channel, slot, index, count }: CardMenuProps) {
  const page = useView(({ menu }) => (menu?.slot === slot.id ? menu.page : null));
  const setPage = (next: CardPage | null): void =>
    useView.setState({ menu: next ? { slot: slot.id, page: next } : null });
  const { name } = effectOf(slot.effect);
  const { run } = useOpenPiece.getState();
  const where = { channel, slot: slot.id };
  const close = (): void => setPage(null);
  const act = (what: () => void) => (): void => {
    what();
    close();
  };
  const item = (icon: IconName, text: string, onPress: () => void) => (
    <ListItem key={text} title={text} label={`${text}: ${name}`} icon={icon} onPress={onPress} />
  );
  const titles: Record<CardPage, string> = {
    menu: name,
    replace: `Instead of ${name}`,
    copy: `Copy ${name} to`,
    wet: `On the wet sound of ${name}`,
    save: `${name} as a block`,
  };
  return (
    <>
      <IconButton icon="more-horizontal" label={`More for ${name}`} tone="mute" onPress={() => setPage('menu')} />
      <Sheet title={titles[page ?? 'menu']} visible={page !== null} onClose={close}>
        {page === 'menu' ? (
          <>
            {index > 0
              ? item(
                  'arrow-up',
                  'Move up',
                  act(() => run(moveEffect, { ...where, to: index - 1 })),
                )
              : null}
            {index < count - 1
              ? item(
                  'arrow-down',
                  'Move down',
                  act(() => run(moveEffect, { ...where, to: index + 1 })),
                )
              : null}
            {slot.strands ? null : item('git-branch', 'Treat its wet sound', () => setPage('wet'))}
            {item('repeat', 'Replace', () => setPage('replace'))}
            {item(
              'copy',
              'Duplicate',
              act(() => run(duplicateEffect, { ...where, id: newId() })),
            )}
            {item('corner-up-right', 'Copy to channels', () => setPage('copy'))}
            {item('archive', 'Save as a block', () => setPage('save'))}
            {item(
              'trash-2',
              'Remove',
              act(() => run(removeEffect, where)),
            )}
          </>
        ) : null}
        {page === 'replace' ? (
          <ScrollView style={styles.list}>
            <EffectChoices channel={channel} at={index} replaces={slot.id} onAdded={close} />
          </ScrollView>
        ) : null}
        {page === 'save' ? <SaveBlock slots={[slot]} initial={name} onSaved={close} /> : null}
        {page === 'wet' ? (
          <ScrollView style={styles.list}>
            <EffectChoices
              channel={channel}
              at={slot.wetPath?.length ?? 0}
              inside={{ slot: slot.id, strand: null }}
              onAdded={close}
            />
          </ScrollView>
        ) : null}
        {page === 'copy' ? <CopyToChannels channel={channel} slot={slot} onDone={close} /> : null}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 560 },
});
