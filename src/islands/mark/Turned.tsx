import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import styles from './layer.module.css';

/** Shows what is in it larger or smaller, and turned by quarters; it scrolls where there is no room. */
export function Turned({ turns, zoom, children }: { turns: number; zoom: number; children: ReactNode }) {
  const inner = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = inner.current;
    if (!element) return;
    const watcher = new ResizeObserver(() =>
      setSize({ width: element.offsetWidth, height: element.offsetHeight }),
    );
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  const [width, height] = [size.width * zoom, size.height * zoom];
  const plain = turns === 0 && zoom === 1;
  const turn = [
    '',
    `translateX(${height}px) rotate(90deg)`,
    `translate(${width}px, ${height}px) rotate(180deg)`,
    `translateY(${width}px) rotate(270deg)`,
  ][turns];
  const upright = turns % 2 === 0;
  return (
    <div className={styles.scroller}>
      <div style={plain ? undefined : { width: upright ? width : height, height: upright ? height : width }}>
        <div
          ref={inner}
          className={styles.turned}
          style={
            plain
              ? undefined
              : { transform: `${turn ?? ''} scale(${zoom})`, width: size.width, maxWidth: 'none' }
          }
        >
          {children}
        </div>
      </div>
    </div>
  );
}
