import { useState } from 'react';
import { useView, type OpenSheet } from '../../data/view';
import { IconButton } from '../../ui/IconButton';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { GapSheet } from '../shared/recipes/GapButton';
import { ZoomItems } from '../shared/time/ZoomItems';
import { HistorySheet } from './HistoryButton';

/** What has no room on a phone, in words. */
export function MoreButton({ hasTracks }: { readonly hasTracks: boolean }) {
  const [open, setOpen] = useState(false);
  const show = (sheet: OpenSheet): void => {
    setOpen(false);
    useView.setState({ sheet });
  };
  return (
    <>
      <IconButton icon="more-horizontal" label="More for the piece" onPress={() => setOpen(true)} />
      <Sheet title="More" visible={open} onClose={() => setOpen(false)}>
        <ListItem
          title="Write files"
          note="The piece, a file for each track, a stretch or prints, as WAV or FLAC."
          icon="download"
          onPress={() => show('files')}
        />
        <ListItem
          title="History"
          note="Every edit by name: go back to any of them, or undo a single one."
          label="History"
          icon="clock"
          onPress={() => show('history')}
        />
        {hasTracks ? (
          <ListItem
            title="Gaps"
            note="Where a track is silent for a bar or longer, and what could fill it."
            label="Gaps of the piece"
            icon="columns"
            onPress={() => show('gaps')}
          />
        ) : null}
        <ListItem
          title="All commands and keys"
          note="Search everything that can be done, effects among it."
          icon="command"
          onPress={() => show('commands')}
        />
        <ListItem
          title="Settings"
          note="Light, output and latency, keys, storage, licences."
          icon="settings"
          onPress={() => show('settings')}
        />
        <ZoomItems />
      </Sheet>
      <HistorySheet />
      <GapSheet />
    </>
  );
}
