import { Button, Checkbox, TextInput } from '@mantine/core';
import { RichField } from '@/desk/RichField';
import type { PaperPart } from '@/core/model/paper';
import { PointsField } from '@/ui/PointsField';
import { SortableItem } from '@/ui/Sortable';
import styles from './write.module.css';

interface PartRowProps {
  part: PaperPart;
  number: number;
  /** How many questions it has. */
  count: number;
  keep: (part: PaperPart, said: string, field?: string) => void;
  remove: () => void;
}

/** The heading of a part: what students read, and which of its questions they get. */
export function PartRow({ part, number, count, keep, remove }: PartRowProps) {
  const name = `part ${number}`;
  return (
    <SortableItem id={part.id} label={`Move part ${number} with its questions`} className={styles.part}>
      <div className={styles.partFields} id={`field-part-${part.id}`}>
        <TextInput
          aria-label={`Title of ${name}`}
          variant="unstyled"
          classNames={{ input: styles.partTitle ?? '' }}
          value={part.title}
          onChange={(event) =>
            keep({ ...part, title: event.currentTarget.value }, `Title of ${name}`, `part-title-${part.id}`)
          }
        />
        <RichField
          low
          id={`field-part-instructions-${part.id}`}
          label={`Instructions of ${name}`}
          placeholder="Instructions for this part"
          value={part.instructions}
          change={(instructions) =>
            keep({ ...part, instructions }, `Instructions of ${name}`, `part-instructions-${part.id}`)
          }
        />
        <div className={styles.partChoices}>
          <Checkbox
            size="sm"
            label={part.draw === null ? `Each student gets all ${count}` : 'Each student gets'}
            aria-label={`Draw questions of ${name} at random`}
            checked={part.draw !== null}
            onChange={(event) =>
              keep(
                { ...part, draw: event.currentTarget.checked ? Math.max(1, count - 1) : null },
                `Draw of ${name} changed`,
              )
            }
          />
          {part.draw !== null && (
            <span className={styles.draw}>
              <PointsField
                label={`How many questions of ${name} each student gets`}
                w={56}
                min={1}
                value={part.draw}
                onPoints={(draw) => {
                  if (draw !== null && Number.isInteger(draw))
                    keep({ ...part, draw }, `Draw of ${name} changed`, `draw-${part.id}`);
                }}
              />
              of {count}, drawn at random
            </span>
          )}
          <Checkbox
            size="sm"
            label="in a different order each"
            aria-label={`Shuffle the questions of ${name}`}
            checked={part.shuffle}
            onChange={(event) =>
              keep({ ...part, shuffle: event.currentTarget.checked }, `Order of ${name} changed`)
            }
          />
          <Checkbox
            size="sm"
            label="new page when printed"
            aria-label={`Start ${name} on a new page when printed`}
            checked={part.newPage}
            onChange={(event) =>
              keep({ ...part, newPage: event.currentTarget.checked }, `Page break of ${name} changed`)
            }
          />
          <Button size="compact-sm" onClick={remove}>
            Remove heading
          </Button>
        </div>
      </div>
    </SortableItem>
  );
}
