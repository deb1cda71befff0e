// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { samples } from '../../../tests/unit/samples';
import { draw, fetched } from '../../../tests/unit/screen';
import { kindOf, type KindName, type Response } from '@/core/kinds';
import type { Drawing } from '@/core/kinds/working/drawing';
import { noWorking } from '@/core/kinds/working/ways';
import { FilesFrom, harmlessType, passingFiles, type Files } from '@/ui/files';
import { viewOf } from '.';
import { DrawingPad } from './working/DrawingPad';

const empty: Files = { get: () => Promise.resolve(null), put: () => Promise.reject(new Error('full')) };

beforeEach(() => {
  URL.createObjectURL = vi.fn(() => 'blob:here');
  URL.revokeObjectURL = vi.fn();
});

async function sit(kind: KindName, response: Response | null, files: Files = passingFiles(empty)) {
  const given: Response[] = [];
  const { Sit } = viewOf({ kind });
  const drawn = draw(
    <FilesFrom files={files}>
      <p id="stem">What is asked</p>
      <Sit
        question={kindOf(samples[kind]).forStudent(samples[kind], 'attempt1')}
        response={response}
        respond={(next) => given.push(next)}
        labelledBy="stem"
      />
    </FilesFrom>,
  );
  await fetched();
  return { ...drawn, given };
}

const choose = (label: RegExp, ...files: File[]) =>
  fireEvent.change(screen.getByLabelText(label, { selector: 'input' }), { target: { files } });

describe('a file put into an answer', () => {
  const plan = new File(['Leave at 0900'], 'plan.pdf', { type: 'application/pdf' });

  it('is kept with its name, type and size', async () => {
    const { given } = await sit('file', null);
    choose(/^Add a PDF or sheet file/, plan);
    await waitFor(() => expect(given).toHaveLength(1));
    expect(given[0]).toMatchObject({ files: [{ name: 'plan.pdf', mediaType: 'application/pdf', size: 13 }] });
  });

  it('of another sort, or one too many, is refused in words, and what was there stays', async () => {
    const { given } = await sit('file', null);
    choose(/^Add/, new File(['x'], 'plan.exe', { type: 'application/x-msdownload' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/plan\.exe isn’t accepted here/);
    choose(/^Add/, plan, plan, plan);
    await waitFor(() => expect(given).toHaveLength(1));
    expect((await screen.findByRole('alert')).textContent).toMatch(/You can add at most 2/);
  });

  it('that cannot be kept says so, and is no part of the answer', async () => {
    const { given } = await sit('file', null, empty);
    choose(/^Add/, plan);
    expect((await screen.findByRole('alert')).textContent).toBe('This file couldn’t be read.');
    expect(given).toEqual([]);
  });

  it('that has not arrived is named, not drawn as empty', async () => {
    const file = { id: 'f1', name: 'plan.pdf', mediaType: 'application/pdf', size: 13 };
    const { given, hand } = await sit('file', { files: [file] });
    expect(await screen.findByText(/plan.pdf hasn’t arrived yet/)).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Remove plan.pdf' }));
    expect(given).toEqual([{ files: [] }]);
  });

  it.each([
    ['text/html', 'application/octet-stream'],
    ['image/svg+xml', 'application/octet-stream'],
    ['application/xhtml+xml', 'application/octet-stream'],
    ['text/csv', 'text/plain'],
    ['image/png', 'image/png'],
  ])('%s from outside is opened as %s', (from, to) => expect(harmlessType(from)).toBe(to));
});

describe('a working', () => {
  it('ways not begun are a button each; words are kept as they are typed', async () => {
    const { given, hand } = await sit('working', null);
    await hand.click(screen.getByRole('button', { name: 'in words' }));
    await hand.type(screen.getByRole('textbox', { name: 'Working in words' }), 'd');
    expect(given).toEqual([{ ...noWorking, words: 'd' }]);
    expect(screen.getByRole('button', { name: 'with a photo' })).toBeTruthy();
  });

  it('shown: each way that was taken, with what it says for who cannot see it', async () => {
    const { Show } = viewOf(samples.working);
    const photo = { id: 'p', name: 'sheet.jpg', mediaType: 'image/jpeg', size: 3 };
    draw(
      <FilesFrom
        files={{ ...empty, get: () => Promise.resolve({ ...photo, bytes: Uint8Array.of(1, 2, 3) }) }}
      >
        <Show
          question={kindOf(samples.working).forStudent(samples.working, 'a')}
          response={{ words: 'Turn to port', maths: [], drawing: [[1, 1, 9, 9]], photos: [photo] }}
        />
      </FilesFrom>,
    );
    expect(await screen.findByText('Turn to port')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'A drawing of 1 line' })).toBeTruthy();
    expect(await screen.findByRole('img', { name: 'sheet.jpg' })).toBeTruthy();
    expect(screen.getByRole('img', { name: 'A chart of the bay' })).toBeTruthy();
  });
});

describe('drawing', () => {
  function pad(drawing: Drawing) {
    const change = vi.fn<(drawing: Drawing) => void>();
    const drawn = draw(<DrawingPad drawing={drawing} canvas={undefined} disabled={false} change={change} />);
    const sheet = screen.getByRole('img', { name: /^Your drawing/ });
    Element.prototype.setPointerCapture = () => undefined;
    const line = (...points: [number, number][]) => {
      points.forEach(([clientX, clientY], index) =>
        fireEvent[index === 0 ? 'pointerDown' : 'pointerMove'](sheet, { clientX, clientY, button: 0 }),
      );
      fireEvent.pointerUp(sheet);
    };
    return { ...drawn, change, line };
  }

  it('a line joins the drawing once the pen is lifted', () => {
    const { change, line } = pad([[1, 1]]);
    line([10, 10], [20, 10], [30, 10]);
    expect(change.mock.calls).toEqual([
      [
        [
          [1, 1],
          [10, 10, 20, 10, 30, 10],
        ],
      ],
    ]);
  });

  it('the rubber takes whole lines; the last and all can be taken away', async () => {
    const { change, line, hand } = pad([
      [0, 0, 100, 0],
      [0, 300, 100, 300],
    ]);
    await hand.click(screen.getByRole('radio', { name: 'Eraser' }));
    line([50, 300], [50, 200]);
    expect(change).toHaveBeenLastCalledWith([[0, 0, 100, 0]]);
    await hand.click(screen.getByRole('button', { name: 'Undo line' }));
    expect(change).toHaveBeenLastCalledWith([[0, 0, 100, 0]]);
    await hand.click(screen.getByRole('button', { name: 'Clear drawing' }));
    expect(change).toHaveBeenLastCalledWith([]);
  });

  it('what was put away as a whole can be brought back', async () => {
    const lines: Drawing = [
      [0, 0, 100, 0],
      [0, 300, 100, 300],
    ];
    function Kept() {
      const [drawing, setDrawing] = useState<Drawing>(lines);
      return <DrawingPad drawing={drawing} canvas={undefined} disabled={false} change={setDrawing} />;
    }
    const { hand } = draw(<Kept />);
    await hand.click(screen.getByRole('button', { name: 'Clear drawing' }));
    expect(screen.getByRole('img', { name: 'Your drawing, 0 lines' })).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Bring 2 lines back' }));
    expect(screen.getByRole('img', { name: 'Your drawing, 2 lines' })).toBeTruthy();
  });
});
