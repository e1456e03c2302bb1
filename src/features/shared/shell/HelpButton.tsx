import { useView } from '../../../data/view';
import { IconButton } from '../../../ui/IconButton';

/** Opens what the view is for. */
export function HelpButton() {
  return (
    <IconButton
      icon="help-circle"
      label="Help for this view"
      tone="mute"
      onPress={() => useView.setState({ sheet: 'help' })}
    />
  );
}
