import type { Plugin } from 'vite';

export function coreIsPure(): Plugin;
export function withoutEffects(code: string): string;
