import { Button } from '@mantine/core';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { KeyHint } from '@/ui/KeyHint';
import { Markable } from '../kinds/Surface';
import { LayerTools, layerTools, type LayerChange, type LayerTool } from './layerTools';
import { MarkedSurface } from './MarkedSurface';
import styles from './layer.module.css';

interface LayerMarkerProps {
  change: LayerChange;
  done: () => void;
  children: ReactNode;
}

/**
 * Marks on drawings, photos, pages and lines of maths: with mouse, pen or finger by the tool that is chosen, or by keys at the
 * cross that the arrow keys move. They are a layer of their own; the work under it never changes.
 */
export function LayerMarker({ change, done, children }: LayerMarkerProps) {
  const [tool, setTool] = useState<LayerTool>('pen');
  const place = useRef<HTMLDivElement>(null);
  // Pages come a moment later: the first surface there is gets the keys.
  useEffect(() => {
    const find = () => {
      const first = place.current?.querySelector<HTMLElement>('[data-surface]');
      if (!first || place.current?.querySelector('[data-surface]:focus-within')) return first !== null;
      first.focus({ preventScroll: true });
      return true;
    };
    if (find() || !place.current) return;
    const watcher = new MutationObserver(() => find() && watcher.disconnect());
    watcher.observe(place.current, { childList: true, subtree: true });
    return () => watcher.disconnect();
  }, []);
  // From the tools too; a surface first ends the line it is at.
  useEffect(() => {
    const element = place.current;
    const end = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      done();
    };
    element?.addEventListener('keydown', end);
    return () => element?.removeEventListener('keydown', end);
  }, [done]);
  const marking = useMemo(() => ({ tool, change, done }), [tool, change, done]);
  return (
    <div ref={place} data-own-keys className={styles.marker}>
      <div className={styles.tools} role="group" aria-label="Mark with">
        {layerTools.map((each) => (
          <Button
            key={each.tool}
            size="compact-sm"
            aria-pressed={tool === each.tool}
            variant={tool === each.tool ? 'light' : 'default'}
            onClick={() => setTool(each.tool)}
          >
            {each.label}&ensp;
            <KeyHint keys={each.key.length === 1 ? each.key.toUpperCase() : '⌫'} />
          </Button>
        ))}
        <Button size="compact-sm" onClick={done}>
          Done&ensp;
          <KeyHint keys="Esc" />
        </Button>
      </div>
      <LayerTools value={marking}>
        <Markable value={MarkedSurface}>{children}</Markable>
      </LayerTools>
      <p className={styles.soft} id="layer-keys">
        Arrow keys move the cross, with Shift in small steps; a letter marks there. P and A begin a line or an
        arrow and end it. + − zooms, R turns.
      </p>
    </div>
  );
}
