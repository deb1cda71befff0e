import type { Loss } from '@/core/formats/qti/losses';
import styles from './LossList.module.css';
import { lossesByPlace } from '@/words/losses';

/** What could not be carried, place by place: nothing is dropped in silence. */
export function LossList({ losses, label }: { losses: readonly Loss[]; label: string }) {
  if (losses.length === 0) return null;
  return (
    <section aria-label={label} className={styles.losses}>
      <h3>{label}</h3>
      <dl>
        {lossesByPlace(losses).map(([place, said]) => (
          <div key={place}>
            <dt>{place}</dt>
            {said.map((each) => (
              <dd key={each}>{each}</dd>
            ))}
          </div>
        ))}
      </dl>
    </section>
  );
}
