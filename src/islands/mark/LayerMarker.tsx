import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import {
  createContext,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { layerPoints, markAt, type Place } from '@/core/marking/work/layerPoints';
import type { LayerMark, WorkStep } from '@/core/model/workMark';
import { KeyHint } from '@/ui/KeyHint';
import { LayerNotes, LayerShapes, LayerSheet, layerWords } from '@/ui/plain/MarkLayer';
import { Markable, type MarkableProps } from '../kinds/Surface';
import styles from './layer.module.css';

type Tool = LayerMark['is'] | 'remove';

const tools: { tool: Tool; key: string; label: string; said: string }[] = [
  { tool: 'pen', key: 'p', label: 'Pen', said: 'Line drawn' },
  { tool: 'tick', key: 't', label: 'Tick', said: 'Tick set' },
  { tool: 'cross', key: 'x', label: 'Cross', said: 'Cross set' },
  { tool: 'arrow', key: 'a', label: 'Arrow', said: 'Arrow drawn' },
  { tool: 'note', key: 'n', label: 'Note', said: 'Note written' },
  { tool: 'remove', key: 'Backspace', label: 'Remove', said: 'Mark removed' },
];
const saidOf = (tool: Tool) => tools.find((each) => each.tool === tool)?.said ?? '';

type Change = (step: WorkStep, said: string) => void;

/** What the surfaces of one answer share while it is marked. */
interface Marking {
  tool: Tool;
  change: Change;
  done: () => void;
}
const MarkingContext = createContext<Marking | null>(null);

interface LayerMarkerProps {
  change: Change;
  done: () => void;
  children: ReactNode;
}

/**
 * Marks on drawings, photos, pages and lines of maths: with mouse, pen or finger by the tool that is chosen, or by keys at the
 * cross that the arrow keys move. They are a layer of their own; the work under it never changes.
 */
export function LayerMarker({ change, done, children }: LayerMarkerProps) {
  const [tool, setTool] = useState<Tool>('pen');
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
        {tools.map((each) => (
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
      <MarkingContext value={marking}>
        <Markable value={MarkedSurface}>{children}</Markable>
      </MarkingContext>
      <p className={styles.soft} id="layer-keys">
        Arrow keys move the cross, with Shift in small steps; a letter marks there. P and A begin a line or an
        arrow and end it. + − zooms, R turns.
      </p>
    </div>
  );
}

/** Steps of the cross, in thousandths of the width. */
const [far, near] = [25, 5];
const mostZoom = 4;
const lineTools = new Set<Tool>(['pen', 'arrow']);

/** One surface that can be marked. */
function MarkedSurface({ on, label, marks, view, children }: MarkableProps) {
  const marking = useContext(MarkingContext);
  const [cross, setCross] = useState<Place>(view ? [view.x + view.w / 2, view.y + view.h / 2] : [500, 200]);
  /** The places of the line that is being drawn, and by which tool. */
  const [line, setLine] = useState<{ is: 'pen' | 'arrow'; places: Place[] } | null>(null);
  const [writing, setWriting] = useState<Place | null>(null);
  const [word, setWord] = useState('');
  const [zoom, setZoom] = useState(1);
  const [turns, setTurns] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  if (!marking) return children;
  const { tool, change, done } = marking;

  const put = (is: LayerMark['is'], places: readonly Place[], text = '') => {
    const points = layerPoints(is, places);
    if (!points) return;
    const mark: LayerMark = { id: nanoid(12), is, on, points, text };
    change((before) => [...before, mark], saidOf(is));
    setWord(saidOf(is));
  };
  const remove = (at: Place) => {
    const found = markAt(marks, at);
    if (!found) return setWord('No mark here');
    change((before) => before.filter(({ id }) => id !== found.id), saidOf('remove'));
    setWord(saidOf('remove'));
  };
  const placeOf = (event: PointerEvent<HTMLElement>): Place => {
    // Within the surface itself, however it is turned.
    const scale = (view?.w ?? 1000) / (event.currentTarget.offsetWidth || 1000);
    const { offsetX, offsetY } = event.nativeEvent;
    return [(view?.x ?? 0) + offsetX * scale, (view?.y ?? 0) + offsetY * scale];
  };
  const down = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    if (tool !== 'note') box.current?.focus({ preventScroll: true });
    const at = placeOf(event);
    setCross(at);
    if (tool === 'remove') remove(at);
    else if (tool === 'note') setWriting(at);
    else if (tool === 'pen' || tool === 'arrow') {
      event.currentTarget.setPointerCapture(event.pointerId);
      setLine({ is: tool, places: [at] });
    } else put(tool, [at]);
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    if (!line || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const at = placeOf(event);
    setLine({ is: line.is, places: [...line.places, at] });
  };
  const up = (event: PointerEvent<HTMLElement>) => {
    if (!line || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    put(line.is, line.places);
    setLine(null);
  };
  const step = (dx: number, dy: number) => {
    const { x, y, w, h } = view ?? { x: 0, y: 0, w: 1000, h: Infinity };
    const at: Place = [
      Math.min(x + w, Math.max(x, cross[0] + dx)),
      Math.min(y + h, Math.max(y, cross[1] + dy)),
    ];
    setCross(at);
    if (line) setLine({ is: line.is, places: [...line.places, at] });
  };
  const begin = (is: 'pen' | 'arrow') => {
    if (line?.is === is) {
      put(is, line.places);
      setLine(null);
    } else {
      setLine({ is, places: [cross] });
      setWord(is === 'pen' ? 'Pen down' : 'Arrow begun');
    }
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const by = event.shiftKey ? near : far;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    if (key === 'ArrowLeft') step(-by, 0);
    else if (key === 'ArrowRight') step(by, 0);
    else if (key === 'ArrowUp') step(0, -by);
    else if (key === 'ArrowDown') step(0, by);
    else if (key === 't' || key === 'x') put(key === 't' ? 'tick' : 'cross', [cross]);
    else if (key === 'p' || key === 'a') begin(key === 'p' ? 'pen' : 'arrow');
    else if (key === 'n') setWriting(cross);
    else if (key === 'Backspace' || key === 'Delete') remove(cross);
    else if (key === '+' || key === '-')
      setZoom(Math.min(mostZoom, Math.max(0.5, zoom * (key === '+' ? 1.25 : 0.8))));
    else if (key === 'r') setTurns((turns + 1) % 4);
    else if (key === 'Escape') {
      if (line) setLine(null);
      else done();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const drawn: LayerMark[] = line
    ? [
        ...marks,
        {
          id: 'drawn',
          is: line.is,
          on,
          points: layerPoints(line.is, line.places) ?? [...(line.places[0] ?? cross)],
          text: '',
        },
      ]
    : [...marks];
  const seen = drawn.filter(({ points }) => points.length > 1);
  return (
    <div className={styles.place}>
      <Turned turns={turns} zoom={zoom}>
        {/* An application that takes its own keys (WAI-ARIA 1.2). */}
        {/* eslint-disable jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/no-noninteractive-tabindex, jsx-a11y/no-static-element-interactions */}
        <div
          ref={box}
          data-surface
          role="application"
          aria-label={`${label}. ${layerWords(marks)}`}
          aria-describedby="layer-keys"
          tabIndex={0}
          className={styles.surface}
          onKeyDown={onKey}
        >
          {children}
          <LayerSheet view={view} aria-hidden>
            <LayerShapes marks={seen} />
            <path
              className={styles.cross}
              d={`M${cross[0] - 24} ${cross[1]}h48M${cross[0]} ${cross[1] - 24}v48`}
            />
          </LayerSheet>
          <div
            className={`${styles.glass} ${lineTools.has(tool) ? styles.drawing : ''}`}
            // The press itself does not move the focus: a note is typed at once.
            onMouseDown={(event) => event.preventDefault()}
            onPointerDown={down}
            onPointerMove={move}
            onPointerUp={up}
            onPointerCancel={() => setLine(null)}
          />
        </div>
        {/* eslint-enable jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/no-noninteractive-tabindex, jsx-a11y/no-static-element-interactions */}
      </Turned>
      <p className="visuallyHidden" role="status">
        {word}
      </p>
      {writing && (
        <form
          className={styles.note}
          onSubmit={(event) => {
            event.preventDefault();
            const text = String(new FormData(event.currentTarget).get('note') ?? '').trim();
            if (text) put('note', [writing], text);
            setWriting(null);
            box.current?.focus();
          }}
        >
          <TextInput
            autoFocus
            size="xs"
            name="note"
            maxLength={500}
            className={styles.words ?? ''}
            aria-label={`What the note on ${label} says`}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.stopPropagation();
              setWriting(null);
              box.current?.focus();
            }}
          />
          <Button size="compact-sm" type="submit">
            Write
          </Button>
        </form>
      )}
      <LayerNotes marks={marks} />
    </div>
  );
}

/** Shows what is in it larger or smaller, and turned by quarters; it scrolls where there is no room. */
function Turned({ turns, zoom, children }: { turns: number; zoom: number; children: ReactNode }) {
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
