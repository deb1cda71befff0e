import { useEffect } from 'react';
import { withAsciiDigits } from '@/core/basics/digits';

/** Number fields take the digits of any script: they are put in as the ones that the fields know. */
export function useDigits(): void {
  useEffect(() => {
    const typed = (event: InputEvent) => {
      const { target, data } = event;
      if (data === null || !(target instanceof HTMLInputElement)) return;
      if (!/^(numeric|decimal)$/.test(target.inputMode)) return;
      const plain = withAsciiDigits(data);
      if (plain === data) return;
      event.preventDefault();
      // The one way to put text in as if it had been typed, with the field's own undo and events.
      document.execCommand('insertText', false, plain);
    };
    document.addEventListener('beforeinput', typed);
    return () => document.removeEventListener('beforeinput', typed);
  }, []);
}
