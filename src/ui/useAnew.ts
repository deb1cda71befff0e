import { useState } from 'react';

/** Begins anew, while it is drawn, where what is drawn is about something else; drawn as a new one it would cost several times that. */
export function useAnew(about: unknown, begin: () => void): void {
  const [was, setWas] = useState(about);
  if (was === about) return;
  setWas(about);
  begin();
}
