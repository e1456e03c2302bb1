import { useView } from '../../../data/view';
import { ListItem } from '../../../ui/ListItem';
import { MAX_ZOOM } from './ZoomButtons';

/** Zoom in words, for a menu on a phone; it stays open, as one step is seldom enough. */
export function ZoomItems() {
  const zoom = useView((view) => view.zoom);
  return (
    <>
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
    </>
  );
}
