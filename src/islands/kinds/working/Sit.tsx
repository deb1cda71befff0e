import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { mostText } from '@/core/basics/mostText';
import type { StudentWorking, WorkingResponse } from '@/core/kinds/working/schema';
import { noWorking, waysTaken } from '@/core/kinds/working/ways';
import type { WorkingWay } from '@/core/kinds/working/WorkingWay';
import { pictureFile } from '@/ui/pictureFile';
import { Button } from '@/ui/plain/Button';
import { Textarea } from '@/ui/plain/fields';
import { FilesField } from '../file/FilesField';
import type { SitProps } from '../KindView';
import { DrawingPad } from './DrawingPad';
import { MathsLines } from './MathsLines';
import styles from './working.module.css';

type WorkingSitProps = SitProps<StudentWorking, WorkingResponse>;

/** The ways stand under one another; those not begun are a button each, so that a phone is not full of empty fields. */
export function Sit({ question, response, respond, labelledBy, disabled = false }: WorkingSitProps) {
  const { ways, canvas } = question;
  const given = response ?? noWorking;
  const taken = waysTaken(given);
  const [begun, setBegun] = useState<WorkingWay[]>(() => (canvas ? ['drawing'] : []));
  const [justOpened, setJustOpened] = useState<WorkingWay | null>(null);
  const change = (part: Partial<WorkingResponse>) => respond({ ...given, ...part });
  const open = (way: WorkingWay) => ways.length === 1 || begun.includes(way) || taken.includes(way);
  const fields: Record<WorkingWay, ReactNode> = {
    words: (
      <Textarea
        aria-label="Working in words"
        minRows={3}
        maxLength={mostText}
        disabled={disabled}
        value={given.words}
        onChange={(event) => change({ words: event.currentTarget.value })}
      />
    ),
    maths: (
      <MathsLines
        lines={given.maths}
        focus={justOpened === 'maths'}
        disabled={disabled}
        change={(maths) => change({ maths })}
      />
    ),
    drawing: (
      <DrawingPad
        drawing={given.drawing}
        canvas={canvas}
        disabled={disabled}
        change={(drawing) => change({ drawing })}
      />
    ),
    photo: (
      <FilesField
        files={given.photos}
        most={10}
        add="Add a photo of your page"
        accept="image/*"
        refused={(file) => (file.type.startsWith('image/') ? null : `${file.name} is not a picture.`)}
        prepared={pictureFile}
        disabled={disabled}
        change={(photos) => change({ photos })}
      />
    ),
  };
  const closed = ways.filter((way) => !open(way));
  return (
    <div role="group" aria-labelledby={labelledBy} className={styles.ways}>
      {ways.filter(open).map((way) => (
        <Way key={way} title={titles[way]} focus={way === justOpened}>
          {fields[way]}
        </Way>
      ))}
      {closed.length > 0 && (
        <div className={styles.tools} role="group" aria-label="Show it">
          <span>Show it</span>
          {closed.map((way) => (
            <Button
              key={way}
              size="md"
              disabled={disabled}
              onClick={() => {
                setBegun([...begun, way]);
                setJustOpened(way);
              }}
            >
              {offers[way]}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

const titles: Record<WorkingWay, string> = {
  words: 'In words',
  maths: 'Maths',
  drawing: 'Drawing',
  photo: 'Photo of a sheet',
};

const offers: Record<WorkingWay, string> = {
  words: 'in words',
  maths: 'in maths',
  drawing: 'by drawing',
  photo: 'with a photo',
};

/** @param focus whether it was opened just now: what is to be typed goes into it */
function Way({ title, focus, children }: { title: string; focus: boolean; children: ReactNode }) {
  const id = useId();
  const place = useRef<HTMLElement>(null);
  useEffect(() => {
    if (focus) place.current?.querySelector<HTMLElement>('textarea, input, button')?.focus();
  }, [focus]);
  return (
    <section ref={place} aria-labelledby={id}>
      <h4 id={id} className={styles.title}>
        {title}
      </h4>
      {children}
    </section>
  );
}
