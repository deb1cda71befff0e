import { commentParts } from '@/core/handback/commentText';

/** A comment as a student reads it; the addresses in it can be opened. */
export function Comment({ text, className }: { text: string; className?: string | undefined }) {
  return (
    <p className={`keepLines ${className ?? ''}`}>
      {commentParts(text).map((part, index) =>
        part.href === null ? (
          part.text
        ) : (
          <a
            key={index}
            href={part.href}
            target="_blank"
            rel="noopener noreferrer"
            referrerPolicy="no-referrer"
          >
            {part.text}
          </a>
        ),
      )}
    </p>
  );
}
