import { ActionIcon, Button, Checkbox } from '@mantine/core';
import { IconArrowDown, IconArrowUp } from '@/ui/icons';
import { arranged, columnChoices, type ExportTable } from '@/core/formats/takeout/exportTable';
import type { ExportForm } from '@/store/exportForms';
import { MarginBlock } from '@/ui/TwoColumns';
import { setTitles } from './useExportTable';
import styles from './takeout.module.css';

interface ColumnsChoiceProps {
  table: ExportTable;
  form: ExportForm;
  change: (part: Partial<ExportForm>) => void;
}

/** Which columns there are, in which order; kept for the next time. */
export function ColumnsChoice({ table, form, change }: ColumnsChoiceProps) {
  const { left } = form;
  const choices = arranged(columnChoices(table, setTitles), form.order);
  const ids = choices.map(({ id }) => id);
  const move = (index: number, by: number) => {
    const order = [...ids];
    const [moved] = order.splice(index, 1);
    if (moved !== undefined) order.splice(index + by, 0, moved);
    change({ order });
  };
  return (
    <MarginBlock
      title="Columns"
      aside={
        <Button size="compact-xs" onClick={() => change({ order: [], left: [] })}>
          Reset columns
        </Button>
      }
    >
      <ul className={styles.columns}>
        {choices.map(({ id, title, columns }, index) => (
          <li key={id}>
            <Checkbox
              size="sm"
              label={columns > 1 ? `${title} (${columns})` : title}
              checked={!left.includes(id)}
              onChange={(event) =>
                change({
                  left: event.currentTarget.checked ? left.filter((each) => each !== id) : [...left, id],
                })
              }
            />
            <span className={styles.moves}>
              <ActionIcon
                size={24}
                variant="default"
                aria-label={`Move ${title} up`}
                disabled={index === 0}
                onClick={() => move(index, -1)}
              >
                <IconArrowUp size={14} />
              </ActionIcon>
              <ActionIcon
                size={24}
                variant="default"
                aria-label={`Move ${title} down`}
                disabled={index === choices.length - 1}
                onClick={() => move(index, 1)}
              >
                <IconArrowDown size={14} />
              </ActionIcon>
            </span>
          </li>
        ))}
      </ul>
    </MarginBlock>
  );
}
