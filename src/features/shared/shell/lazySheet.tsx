import { lazy, Suspense, useEffect, useState, type ComponentType } from 'react';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';

interface Closable {
  /** A sheet with `visible` is fetched once it is visible; one without it at once. */
  readonly visible?: boolean;
  readonly onClose?: () => void;
}

/**
 * A sheet that is fetched when it is opened first; where that fails, it is reported and the sheet is closed.
 * @param load gives the component
 */
export function lazySheet<Props extends Closable>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  const Sheet = lazy<ComponentType<Props>>(() =>
    load().then(
      (sheet) => ({ default: sheet }),
      () => ({ default: FailedSheet }),
    ),
  );
  return function LazySheet(props: Props) {
    const [shown, setShown] = useState(false);
    if (!shown && props.visible !== false) setShown(true);
    if (!shown) return null;
    return (
      <Suspense fallback={null}>
        <Sheet {...props} />
      </Suspense>
    );
  };
}

function FailedSheet({ onClose }: Closable) {
  useEffect(() => {
    useView.setState({ sheet: null });
    onClose?.();
    useOpenPiece.getState().say('That could not be fetched: the server is away. Playing, editing and keys go on.');
  }, [onClose]);
  return null;
}
