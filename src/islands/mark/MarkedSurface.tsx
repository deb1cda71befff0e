import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useContext, useRef, useState, type KeyboardEvent } from 'react';
import { layerPoints, markAt, type Place } from '@/core/marking/work/layerPoints';
import type { LayerMark } from '@/core/model/workMark';
import { LayerNotes, LayerShapes, LayerSheet, layerWords } from '@/ui/plain/MarkLayer';
import type { MarkableProps } from '../kinds/Surface';
import { LayerTools, saidOf, type LayerTool } from './layerTools';
import { isLine, useLayerPointer, type DrawnLine } from './useLayerPointer';
import { Turned } from './Turned';
import styles from './layer.module.css';

/** Steps of the cross, in thousandths of the width. */
const [far, near] = [25, 5];
const mostZoom = 4;

/** One surface that can be marked. */
export function MarkedSurface({ on, label, marks, view, children }: MarkableProps) {
  const marking = useContext(LayerTools);
  const [cross, setCross] = useState<Place>(view ? [view.x + view.w / 2, view.y + view.h / 2] : [500, 200]);
  const [line, setLine] = useState<DrawnLine | null>(null);
  const [writing, setWriting] = useState<Place | null>(null);
  const [word, setWord] = useState('');
  const [zoom, setZoom] = useState(1);
  const [turns, setTurns] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const pointer = useLayerPointer({ view, setCross, setLine, box });
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
  const set = (is: LayerTool, at: Place) => {
    if (is === 'remove') remove(at);
    else if (is === 'note') setWriting(at);
    else put(is, [at]);
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
  const seen = [...marks, ...(line ? [drawnLine(line, on, cross)] : [])].filter(
    ({ points }) => points.length > 1,
  );
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
            className={`${styles.glass} ${isLine(tool) ? styles.drawing : ''}`}
            // The press itself does not move the focus: a note is typed at once.
            onMouseDown={(event) => event.preventDefault()}
            {...pointer({ tool, line, put, set })}
          />
        </div>
        {/* eslint-enable jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/no-noninteractive-tabindex, jsx-a11y/no-static-element-interactions */}
      </Turned>
      <p className="visuallyHidden" role="status">
        {word}
      </p>
      {writing && (
        <NoteForm
          label={label}
          write={(text) => text && put('note', [writing], text)}
          close={() => {
            setWriting(null);
            box.current?.focus();
          }}
        />
      )}
      <LayerNotes marks={marks} />
    </div>
  );
}

/** The line as far as it is drawn; where it has no length yet, the place where it begins. */
function drawnLine({ is, places }: DrawnLine, on: string, cross: Place): LayerMark {
  return { id: 'drawn', is, on, points: layerPoints(is, places) ?? [...(places[0] ?? cross)], text: '' };
}

interface NoteFormProps {
  label: string;
  write: (text: string) => void;
  close: () => void;
}

/** What a note says, typed where it is put. */
function NoteForm({ label, write, close }: NoteFormProps) {
  return (
    <form
      className={styles.note}
      onSubmit={(event) => {
        event.preventDefault();
        write(String(new FormData(event.currentTarget).get('note') ?? '').trim());
        close();
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
          close();
        }}
      />
      <Button size="compact-sm" type="submit">
        Write
      </Button>
    </form>
  );
}
