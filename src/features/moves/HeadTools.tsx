import { useState } from 'react';
import { useWide } from '../../ui/theme';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { ZoomButtons } from '../shared/time/ZoomButtons';
import { ZoomItems } from '../shared/time/ZoomItems';
import { ExchangeSheet } from './ExchangeSheet';

/** Import, export and zoom of the moves: in words where there is room, in a menu on a phone. */
export function HeadTools({ channel }: { readonly channel: string }) {
  const wide = useWide();
  const [menu, setMenu] = useState(false);
  const [exchanging, setExchanging] = useState(false);
  const exchange = (): void => {
    setMenu(false);
    setExchanging(true);
  };
  return (
    <>
      {wide ? (
        <>
          <Button icon="share" label="Import and export moves" mode="text" onPress={exchange}>
            Import, export
          </Button>
          <ZoomButtons />
        </>
      ) : (
        <IconButton icon="more-horizontal" label="More for the moves" onPress={() => setMenu(true)} />
      )}
      <Sheet title="More" visible={menu} onClose={() => setMenu(false)}>
        <ListItem
          title="Import and export moves"
          note="As a MIDI file, a table, or text."
          label="Import and export moves"
          icon="share"
          onPress={exchange}
        />
        <ZoomItems />
      </Sheet>
      <ExchangeSheet channel={channel} open={exchanging} onClose={() => setExchanging(false)} />
    </>
  );
}
