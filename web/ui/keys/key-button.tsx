import { ActButton, type ActButtonProps } from '../act-button.js';
import { useHotkeys } from './use-hotkeys.js';

/** A button whose key acts as long as it is in sight. */
export function KeyButton(props: ActButtonProps & { readonly hotkey: string }) {
  const { hotkey, disabled, busy, onAct } = props;
  useHotkeys({ [hotkey]: disabled || busy ? undefined : onAct });
  return <ActButton {...props} />;
}
