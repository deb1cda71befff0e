// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { draw } from '../../tests/unit/screen';
import type { RichNode, RichText } from '@/core/basics/richText';
import { FilesFrom } from './files';
import { Rich } from './Rich';

const paragraph = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content });
const marked = (text: string, ...marks: NonNullable<RichNode['marks']>): RichNode => ({
  type: 'text',
  text,
  marks,
});
const doc = (...content: RichNode[]): RichText => ({ type: 'doc', content });

describe('drawing text with markup', () => {
  it('plain text is text, whatever it looks like', () => {
    const { container } = draw(<Rich text={'<img src=x onerror="alert(1)">\n<b>bold</b>'} />);
    expect(container.querySelector('img, b')).toBeNull();
    expect(container.textContent).toContain('<b>bold</b>');
  });

  it('marks become elements', () => {
    draw(
      <Rich
        text={doc(
          paragraph(
            marked('H', { type: 'bold' }),
            marked('2', { type: 'subscript' }),
            marked('<i>', { type: 'italic' }),
          ),
        )}
      />,
    );
    expect(screen.getByText('H').tagName).toBe('STRONG');
    expect(screen.getByText('2').tagName).toBe('SUB');
    expect(screen.getByText('<i>').tagName).toBe('EM');
  });

  it('a picture is drawn with its words; a decoration is read over; one that is not here says so', async () => {
    URL.createObjectURL = () => 'blob:here';
    URL.revokeObjectURL = () => undefined;
    const picture = (asset: string, alt: string, decoration = false): RichNode => ({
      type: 'picture',
      attrs: { asset, alt, decoration, width: 40, height: 30 },
    });
    const bytes = Uint8Array.of(1);
    const get = (id: string) =>
      Promise.resolve(id === 'gone' ? null : { name: 'p.png', mediaType: 'image/png', bytes });
    const put = () => Promise.reject(new Error('not here'));
    draw(
      <FilesFrom files={{ get, put }}>
        <Rich
          text={doc(
            picture('one', 'A red can'),
            picture('two', '', true),
            picture('gone', 'A green cone'),
            picture('three', ''),
            { type: 'picture', attrs: { asset: 'no size' } },
          )}
        />
      </FilesFrom>,
    );
    await waitFor(() =>
      expect(screen.getByRole('img', { name: 'A red can' }).getAttribute('src')).toBe('blob:here'),
    );
    expect(screen.getByText('[picture missing: A green cone]')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'picture without a description' })).toBeTruthy();
    expect(screen.getAllByRole('img')).toHaveLength(2);
    expect(screen.getAllByRole('presentation')).toHaveLength(1);
  });

  it('links open apart, without saying where from; what is no address is only words', () => {
    draw(
      <Rich
        text={doc(
          paragraph(
            marked('tables', { type: 'link', attrs: { href: 'https://example.org/t' } }),
            marked('bad', { type: 'link', attrs: { href: 'javascript:alert(1)' } }),
          ),
        )}
      />,
    );
    const link = screen.getByRole('link', { name: 'tables' });
    expect(link.getAttribute('target')).toBe('_blank');
    expect(link.getAttribute('rel')).toBe('noopener noreferrer');
    expect(link.getAttribute('referrerpolicy')).toBe('no-referrer');
    expect(screen.getByText('bad').closest('a')).toBeNull();
  });

  it('lists and tables have their roles', () => {
    const cell = (type: 'tableHeader' | 'tableCell', text: string): RichNode => ({
      type,
      content: [paragraph({ type: 'text', text })],
    });
    draw(
      <Rich
        text={doc(
          {
            type: 'orderedList',
            attrs: { start: 3 },
            content: [{ type: 'listItem', content: [paragraph({ type: 'text', text: 'third' })] }],
          },
          {
            type: 'table',
            content: [
              { type: 'tableRow', content: [cell('tableHeader', 'hour'), cell('tableCell', '1/12')] },
            ],
          },
        )}
      />,
    );
    expect(screen.getByRole('list').getAttribute('start')).toBe('3');
    expect(screen.getByRole('columnheader', { name: 'hour' })).toBeTruthy();
    expect(screen.getByRole('cell', { name: '1/12' })).toBeTruthy();
  });

  it('maths is set by KaTeX, with MathML for screen readers; what cannot be set is shown as it is', async () => {
    const { container } = draw(
      <Rich
        text={doc(
          paragraph(
            { type: 'inlineMath', attrs: { latex: '\\frac{3}{12}' } },
            { type: 'inlineMath', attrs: { latex: '\\href{javascript:alert(1)}{x} \\nonsense{' } },
          ),
        )}
      />,
    );
    await waitFor(() => expect(container.querySelector('math mfrac')).toBeTruthy());
    expect(container.querySelector('a')).toBeNull();
    expect(container.textContent).toContain('\\nonsense{');
  });
});
