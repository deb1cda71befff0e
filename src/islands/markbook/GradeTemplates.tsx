import { Button, Select } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import type { GradeScale } from '@/core/model/gradeScale';
import { act } from '@/desk/act';
import { keepGradeTemplate, removeGradeTemplate } from '@/store/markBooks';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { NameForm } from '@/ui/NameForm';
import { MarginBlock } from '@/ui/TwoColumns';
import { usualScales } from './GradesEditor';
import styles from './markbook.module.css';

/** Grade lines to begin with, and those that were saved. */
export function GradeTemplates({
  scale,
  use,
}: {
  scale: GradeScale | null;
  use: (scale: GradeScale) => void;
}) {
  const kept = useLiveQuery(() => desk.gradeTemplates.toCollection().sortBy('name')) ?? [];
  return (
    <MarginBlock title="Saved grade lines">
      <div className={styles.fields}>
        <Select
          label="Begin with"
          size="sm"
          placeholder="Choose"
          value={null}
          data={[
            ...(kept.length > 0
              ? [{ group: 'Saved', items: kept.map(({ id, name: label }) => ({ value: id, label })) }]
              : []),
            {
              group: 'Usual',
              items: usualScales.map(({ name: label }) => ({ value: `usual ${label}`, label })),
            },
          ]}
          onChange={(value) => {
            const found =
              kept.find(({ id }) => id === value) ??
              usualScales.find(({ name: label }) => `usual ${label}` === value)?.scale;
            if (found) use({ by: found.by, lines: found.lines });
          }}
        />
        {scale && (
          <NameForm
            label="Name for these grade lines"
            button="Save these lines"
            done={(name) => act(keepGradeTemplate(name, scale, isoNow()))}
          />
        )}
        {kept.map((template) => (
          <Button
            key={template.id}
            size="compact-xs"
            onClick={() => void act(removeGradeTemplate(template, isoNow()))}
          >
            Delete “{template.name}”
          </Button>
        ))}
      </div>
    </MarginBlock>
  );
}
