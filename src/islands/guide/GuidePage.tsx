import { useEffect, type ReactNode } from 'react';
import { Shell } from '@/desk/Shell';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import styles from './guide.module.css';

interface GuidePageProps {
  pages: { id: string; title: string; about: string }[];
  /** Which of them this is. */
  current: string;
  sections: { slug: string; text: string }[];
  /** What stands in docs/guide, as it was built. */
  children?: ReactNode;
}

/** A page of the guide, with all pages beside it. It needs no desk. */
export function GuidePage({ pages, current, sections, children }: GuidePageProps) {
  const at = pages.findIndex(({ id }) => id === current);
  const next = pages[at + 1];
  useEffect(() => {
    // The page was not there yet when the browser looked for the part of it that its address names.
    const part = document.getElementById(decodeURIComponent(window.location.hash.slice(1)));
    if (!part) return;
    part.tabIndex = -1;
    part.focus();
    part.scrollIntoView();
  }, []);
  return (
    <Shell>
      <TwoColumns
        marginLabel="About the guide"
        margin={
          <>
            <MarginBlock title="Guide">
              <nav aria-label="Pages of the guide">
                <ol className={styles.pages}>
                  {pages.map(({ id, title }) => (
                    <li key={id}>
                      <a href={`/guide/${id}`} aria-current={id === current ? 'page' : undefined}>
                        {title}
                      </a>
                    </li>
                  ))}
                </ol>
              </nav>
            </MarginBlock>
            {sections.length > 1 && (
              <MarginBlock title="On this page">
                <ul className={styles.pages}>
                  {sections.map(({ slug, text }) => (
                    <li key={slug}>
                      <a href={`#${slug}`}>{text}</a>
                    </li>
                  ))}
                </ul>
              </MarginBlock>
            )}
          </>
        }
      >
        <article className={styles.text}>
          <h1>{pages[at]?.title}</h1>
          {children}
          {next && (
            <p>
              Next: <a href={`/guide/${next.id}`}>{next.title}</a>, {next.about}.
            </p>
          )}
        </article>
      </TwoColumns>
    </Shell>
  );
}
