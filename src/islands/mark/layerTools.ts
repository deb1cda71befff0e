import { createContext } from 'react';
import type { LayerMark, WorkStep } from '@/core/model/workMark';

export type LayerTool = LayerMark['is'] | 'remove';

export const layerTools: { tool: LayerTool; key: string; label: string; said: string }[] = [
  { tool: 'pen', key: 'p', label: 'Pen', said: 'Line drawn' },
  { tool: 'tick', key: 't', label: 'Tick', said: 'Tick set' },
  { tool: 'cross', key: 'x', label: 'Cross', said: 'Cross set' },
  { tool: 'arrow', key: 'a', label: 'Arrow', said: 'Arrow drawn' },
  { tool: 'note', key: 'n', label: 'Note', said: 'Note written' },
  { tool: 'remove', key: 'Backspace', label: 'Remove', said: 'Mark removed' },
];
/** What is said of it once it is done. */
export const saidOf = (tool: LayerTool) => layerTools.find((each) => each.tool === tool)?.said ?? '';

export type LayerChange = (step: WorkStep, said: string) => void;

/** What the surfaces of one answer share while it is marked. */
export interface LayerMarking {
  tool: LayerTool;
  change: LayerChange;
  done: () => void;
}
export const LayerTools = createContext<LayerMarking | null>(null);
