/** What someone says who writes this; null where it is neither. */
export function truth(text: string): boolean | null {
  if (/^(true|t|yes|y|1)$/i.test(text.trim())) return true;
  return /^(false|f|no|n|0)$/i.test(text.trim()) ? false : null;
}
