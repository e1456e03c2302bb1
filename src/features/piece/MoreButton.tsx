import { useState } from 'react';
import { useView } from '../../data/view';
import { IconButton } from '../../ui/IconButton';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { GapSheet } from '../shared/recipes/GapButton';
import { MAX_ZOOM } from '../shared/time/ZoomButtons';
import { HistorySheet } from './HistoryButton';

/** What has no room on a phone, in words. */
export function MoreButton({ hasTracks }: { readonly hasTracks: boolean }) {
  const [open, setOpen] = useState<'more' | 'history' | 'gaps' | null>(null);
  const zoom = useView((view) => view.zoom);
  const close = (): void => setOpen(null);
  return (
    <>
      <IconButton icon="more-horizontal" label="More for the piece" onPress={() => setOpen('more')} />
      <Sheet title="More" visible={open === 'more'} onClose={close}>
        <ListItem
          title="History"
          note="Every edit by name: go back to any, or take one out alone."
          label="History"
          icon="clock"
          onPress={() => setOpen('history')}
        />
        {hasTracks ? (
          <ListItem
            title="Gaps"
            note="Where a track is silent for a bar or longer, and what could fill it."
            label="Gaps of the piece"
            icon="columns"
            onPress={() => setOpen('gaps')}
          />
        ) : null}
        <ListItem
          title="Show less time"
          icon="zoom-in"
          disabled={zoom === MAX_ZOOM}
          onPress={() => useView.setState({ zoom: Math.min(MAX_ZOOM, zoom + 1) })}
        />
        <ListItem
          title="Show more time"
          icon="zoom-out"
          disabled={zoom === 0}
          onPress={() => useView.setState({ zoom: Math.max(0, zoom - 1) })}
        />
      </Sheet>
      <HistorySheet open={open === 'history'} onClose={close} />
      <GapSheet open={open === 'gaps'} onClose={close} />
    </>
  );
}
