import { readControl, readNote, readTransport } from '../../../core/controls/message';
import { markHand } from '../../../ui/handTime';
import { controlMessages, noteMessages, transportMessages, useControllers } from './controllerStore';

function listen(access: MIDIAccess): void {
  const names: string[] = [];
  for (const input of access.inputs.values()) {
    names.push(input.name ?? 'a controller without a name');
    input.onmidimessage = (event) => {
      if (!event.data) return;
      // By the time of the message, not that of its arrival in the page.
      markHand(event);
      const [control, note, transport] = [readControl(event.data), readNote(event.data), readTransport(event.data)];
      if (control) controlMessages.tell(control);
      if (note) noteMessages.tell(note);
      if (transport) transportMessages.tell(transport);
    };
  }
  useControllers.setState({
    outside: names.length > 0 ? names : 'None is plugged in. One that is plugged in later is heard at once.',
  });
}

/** Asks the browser for controllers that are plugged in, and listens to them from then on. */
export async function findControllers(): Promise<void> {
  if (!('requestMIDIAccess' in navigator)) {
    useControllers.setState({
      outside: 'This browser does not give controllers to a page. Try another one, or use the faders and pads below.',
    });
    return;
  }
  try {
    const access = await navigator.requestMIDIAccess();
    access.onstatechange = () => listen(access);
    listen(access);
  } catch {
    useControllers.setState({
      outside:
        'The browser did not give its controllers to this page. Allow it in the settings of the site, then try again.',
    });
  }
}
