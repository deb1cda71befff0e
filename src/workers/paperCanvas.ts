/** A picture drawn on white paper, shrunk to a scale and never larger than it is; what draws it is let go. */
export function onWhite(bitmap: ImageBitmap, scale: number, options: CanvasRenderingContext2DSettings = {}) {
  const shrunk = Math.min(1, scale);
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * shrunk)),
    Math.max(1, Math.round(bitmap.height * shrunk)),
  );
  const context = canvas.getContext('2d', options);
  if (context) {
    // What is seen through it is paper.
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  }
  bitmap.close();
  return { canvas, context };
}

/** A canvas as a file. */
export async function fileOf(
  canvas: OffscreenCanvas,
  type: 'image/jpeg' | 'image/png',
): Promise<Uint8Array<ArrayBuffer>> {
  const blob = await canvas.convertToBlob({ type, quality: 0.85 });
  return new Uint8Array(await blob.arrayBuffer());
}
