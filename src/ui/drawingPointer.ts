/** What a browser tells of a pointer (W3C Pointer Events, level 3). */
type Pointer = Pick<PointerEvent, 'pointerId' | 'pointerType' | 'isPrimary' | 'timeStamp' | 'button'>;

/** The other end of a pen: its button by the same standard, "chorded button interactions". */
const eraserButton = 5;
/** So long after a pen was there what touches is the hand that holds it. */
const handMs = 1_000;

/**
 * Of several pointers on one sheet a single one draws: the first, unless a pen comes. The hand that holds a pen lies on the
 * glass before the pen does and while it writes, and draws nothing.
 */
export class DrawingPointer {
  private drawing: Pick<Pointer, 'pointerId' | 'pointerType'> | null = null;
  private penAt = -Infinity;

  /** A pointer was put down. @returns whether it draws from here on; what another one began before is dropped then */
  begins(event: Pointer): boolean {
    if (event.button !== 0 && !isEraser(event)) return false;
    const isPen = this.noted(event);
    const isHand = event.pointerType === 'touch' && event.timeStamp - this.penAt < handMs;
    if (!isPen && (isHand || (this.drawing !== null && !this.isOver(event)))) return false;
    this.drawing = event;
    return true;
  }

  draws(event: Pointer): boolean {
    this.noted(event);
    return event.pointerId === this.drawing?.pointerId;
  }

  /** A pointer was lifted, or taken away. @returns whether it was the one that draws */
  ends(event: Pointer): boolean {
    const draws = this.draws(event);
    if (draws) this.drawing = null;
    return draws;
  }

  /** Whether the pointer that draws is gone, though its end was never told: a first finger comes down when no other is there. */
  private isOver({ isPrimary, pointerType }: Pointer): boolean {
    return isPrimary && pointerType === this.drawing?.pointerType;
  }

  private noted({ pointerType, timeStamp }: Pointer): boolean {
    const isPen = pointerType === 'pen';
    if (isPen) this.penAt = timeStamp;
    return isPen;
  }
}

/** Whether a pen is used with its other end. */
export const isEraser = ({ pointerType, button }: Pointer): boolean =>
  pointerType === 'pen' && button === eraserButton;
