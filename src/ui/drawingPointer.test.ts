import { describe, expect, it } from 'vitest';
import { DrawingPointer, isEraser } from './drawingPointer';

const at = (timeStamp: number, pointerType: string, pointerId: number, button = 0, isPrimary = false) => ({
  ...{ timeStamp, pointerType, pointerId, button, isPrimary },
});

// Button values: W3C Pointer Events, level 3, "chorded button interactions" (0 contact, 2 barrel, 5 eraser).
describe('one pointer draws', () => {
  it('the first of two fingers, until it is lifted', () => {
    const pointer = new DrawingPointer();
    expect(pointer.begins(at(0, 'touch', 1))).toBe(true);
    expect(pointer.begins(at(10, 'touch', 2))).toBe(false);
    expect(pointer.draws(at(20, 'touch', 2))).toBe(false);
    expect(pointer.draws(at(20, 'touch', 1))).toBe(true);
    expect(pointer.ends(at(30, 'touch', 2))).toBe(false);
    expect(pointer.ends(at(40, 'touch', 1))).toBe(true);
    expect(pointer.begins(at(50, 'touch', 3))).toBe(true);
  });

  it('a pen takes it from the hand that lay down before, and the hand draws nothing beside it', () => {
    const pointer = new DrawingPointer();
    expect(pointer.begins(at(0, 'touch', 1))).toBe(true);
    expect(pointer.begins(at(100, 'pen', 2))).toBe(true);
    expect(pointer.draws(at(110, 'touch', 1))).toBe(false);
    expect(pointer.ends(at(120, 'touch', 1))).toBe(false);
    expect(pointer.draws(at(130, 'pen', 2))).toBe(true);
    expect(pointer.ends(at(140, 'pen', 2))).toBe(true);
    expect(pointer.begins(at(900, 'touch', 3))).toBe(false);
    expect(pointer.begins(at(1200, 'touch', 4))).toBe(true);
  });

  it('a pen that only hovers keeps the hand off, too', () => {
    const pointer = new DrawingPointer();
    expect(pointer.draws(at(500, 'pen', 2, -1))).toBe(false);
    expect(pointer.begins(at(700, 'touch', 1))).toBe(false);
  });

  it('one whose end was never told holds up none that comes after it', () => {
    const pointer = new DrawingPointer();
    expect(pointer.begins(at(0, 'touch', 1, 0, true))).toBe(true);
    expect(pointer.begins(at(10, 'touch', 2))).toBe(false);
    expect(pointer.begins(at(5_000, 'touch', 3, 0, true))).toBe(true);
    expect(pointer.draws(at(5_010, 'touch', 3, 0, true))).toBe(true);
  });

  it('another button than the first begins nothing; the other end of a pen does', () => {
    const pointer = new DrawingPointer();
    expect(pointer.begins(at(0, 'mouse', 1, 2))).toBe(false);
    expect(pointer.begins(at(0, 'pen', 2, 2))).toBe(false);
    expect(pointer.begins(at(0, 'pen', 2, 5))).toBe(true);
    expect(isEraser(at(0, 'pen', 2, 5))).toBe(true);
    expect(isEraser(at(0, 'mouse', 1, 5))).toBe(false);
  });
});
